import { keyCalled, nameOf, NAMINGS } from './naming';

// Names of notes in the four traditions, as handbooks of music theory have them (from memory).
test.each([
  // midi, flats, letters, german, italian, french, spanish
  [69, false, 'A4', 'a¹', 'La3', 'La3', 'La4'],
  [60, false, 'C4', 'c¹', 'Do3', 'Do3', 'Do4'],
  [59, false, 'B3', 'h', 'Si2', 'Si2', 'Si3'],
  [58, true, 'Bb3', 'b', 'Sib2', 'Sib2', 'Sib3'],
  [58, false, 'A#3', 'ais', 'La#2', 'La#2', 'La#3'],
  [63, true, 'Eb4', 'es¹', 'Mib3', 'Mib3', 'Mib4'],
  [68, true, 'Ab4', 'as¹', 'Lab3', 'Lab3', 'Lab4'],
  [61, true, 'Db4', 'des¹', 'Reb3', 'Réb3', 'Reb4'],
  [66, false, 'F#4', 'fis¹', 'Fa#3', 'Fa#3', 'Fa#4'],
  [72, false, 'C5', 'c²', 'Do4', 'Do4', 'Do5'],
  // The great octave and what lies under it; the octave that the French and Italians don't have is passed over.
  [40, false, 'E2', 'E', 'Mi1', 'Mi1', 'Mi2'],
  [47, false, 'B2', 'H', 'Si1', 'Si1', 'Si2'],
  [35, false, 'B1', 'H₁', 'Si-1', 'Si-1', 'Si1'],
  [38, false, 'D2', 'D', 'Re1', 'Ré1', 'Re2'],
])('MIDI %i is called by each school as its handbooks call it', (midi, flats, ...names) => {
  expect(NAMINGS.map((naming) => nameOf(midi, naming, flats))).toEqual(names);
});

test('keys are called by their tonics', () => {
  expect(NAMINGS.map((naming) => keyCalled(70, naming))).toEqual(['Bb', 'B', 'Sib', 'Sib', 'Sib']);
  expect(NAMINGS.map((naming) => keyCalled(61, naming))).toEqual(['Db', 'Des', 'Reb', 'Réb', 'Reb']);
  expect(NAMINGS.map((naming) => keyCalled(71, naming))).toEqual(['B', 'H', 'Si', 'Si', 'Si']);
});

test('no two notes of the keyboard share a name', () => {
  for (const naming of NAMINGS)
    for (const flats of [false, true]) {
      const names = Array.from({ length: 128 }, (_, midi) => nameOf(midi, naming, flats));
      expect(new Set(names).size).toBe(128);
      expect(names.join()).not.toContain('undefined');
    }
});
