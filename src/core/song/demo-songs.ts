import { Typed, typedSong } from './typed';
import type { Song } from './types';

/** Songs of the demo studio's puppet opera, made for it; also what tests sing. */
const TYPED: readonly Typed[] = [
  {
    title: 'The Heron’s Song',
    style: 'Puppet opera, slow air',
    language: 'en',
    tempo: 76,
    meter: [3, 4],
    fifths: -1,
    upbeat: 1,
    melody: `mp C4 | F4:2 G4 | A4:2 A4:0.5 G4:0.5 | F4 C4 D4 | C4:2, C4 | F4:2 G4 | A4 Bb4 A4 | G4:3 | G4:2 r |
      mf C5:2 Bb4 | A4:2 G4 | A4 F4 D4 | G4:2, G4 | A4 Bb4 C5 | D5:2 C5 | A4:3 | G4:2 r |
      f C5:1.5 D5:0.5 E5 | F5:3 | E5 D5 C5 | D5:2 Bb4, | C5:1.5 A4:0.5 F4 | G4:2 E4 | mp F4:3 | F4:2 r`,
    words: `Low on the wa-ter the he-ron stands still, The reeds hold their breath on the hill
      Grey in the mor-ning they go by, And none of them asks where I fly
      Rise on the wind! Now o-pen your wings And car-ry the ri-ver home`,
  },
  {
    title: 'Lock Gates',
    style: 'Puppet opera, patter',
    language: 'en',
    tempo: 116,
    meter: [4, 4],
    fifths: 2,
    melody: `mf D4:0.5 D4:0.5 F#4 A4 A4 | B4:0.5 A4:0.5 F#4 D4:2, | D4:0.5 D4:0.5 F#4 A4 B4 | A4:3 r |
      B4:0.5 B4:0.5 A4 F#4 A4 | G4:0.5 F#4:0.5 E4 D4:2, | E4:0.5 E4:0.5 F#4 G4 A4 | F#4:3 r |
      f A4:1.5 A4:0.5 B4 C#5 | D5:3 r | C#5:0.5 B4:0.5 A4 F#4 D4 | E4:3 r |
      A4:1.5 B4:0.5 A4 G4 | F#4:2 D4:2 | E4 F#4 G4 E4 | D4:3 r`,
    words: `Wind up the wheel, boys, wind it a-gain, Wind it by lan-tern light
      Five hun-dred buck-ets and not one cup, When will the wa-ter rise
      O-pen the gates, boys, O-pen the gates and wait
      Here comes the barge, row on, bring her in-to lock`,
  },
  {
    title: 'Ferryman, Wait',
    style: 'Puppet opera, ballad',
    language: 'en',
    tempo: 66,
    meter: [4, 4],
    fifths: 0,
    melody: `p E4:1.5 D4:0.5 C4 G3 | A3:2 C4:2, | D4:1.5 C4:0.5 D4 E4 | G4:4, | A4:1.5 G4:0.5 E4 D4 | C4:2 A3:2, | G3 C4 E4 D4 | C4:3 r |
      mf G4:1.5 A4:0.5 G4 C5 | B4:2 A4:2, | A4:1.5 B4:0.5 A4 D5 | C5:4, | f E5:2 D5 C5 | A4:2 G4:2, | p G4 A4 G4 D4 | C4:4`,
    words: `Fer-ry-man, wait for me, the bells have not rung, My bas-ket is emp-ty, my song is un-sung
      Car-ry me o-ver, I’ll pay you with a tune, One for the ri-ver, and one for the moon`,
  },
];

export const DEMO_SONGS: readonly Song[] = TYPED.map(typedSong);
