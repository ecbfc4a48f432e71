import { texts } from '../../core/words/said';

/** Help of one page: what one is looking at, and what can be pressed there. */
export interface HelpPage {
  /** The page's address, as the folder of pages has it. */
  at: string;
  name: string;
  /** What it shows, in a few sentences. */
  shows: string[];
  /** What to press or do, and what comes of it. */
  press: [what: string, then: string][];
}

const SINGER = '/singers/[singerId]';

/** In the order of a first hour. */
export const HELP: readonly HelpPage[] = texts([
  {
    at: '/',
    name: 'Studio',
    shows: [
      'Everybody you teach, with their range, the notes at which chest voice hands over to head voice (the passaggi), what happens there, and when you last heard them.',
      '“A word today” names who told of trouble, asked something or has been silent for some days.',
    ],
    press: [
      ['Add a singer', 'asks for a name and a voice; all else can wait. You come to Listen at once.'],
      [
        'The pencil',
        'opens what you noted: health, goals, consent, the school they are taught by. There a singer is put away or deleted for good.',
      ],
      ['Listen', 'starts recording with that singer.'],
      ['The name', 'opens the singer: map, plan, progress and songs are tabs there.'],
      ['Several together', 'warms up a section or a choir: sets in keys that suit everybody who is ticked.'],
    ],
  },
  {
    at: `${SINGER}/listen`,
    name: 'Listen',
    shows: [
      'Where a voice is recorded. A first listening leads through slides, held notes and five-note scales; a free take is whatever you ask for.',
      'While somebody sings the trace is drawn live, coloured from chest to head once enough was heard; in a lesson over what is meant.',
    ],
    press: [
      [
        'First listening',
        'is a lesson that goes through its steps: the piano gives the key, the page listens, the next key follows by itself.',
      ],
      [
        'How loud it stays joined',
        'is a lesson of one slide soft, medium and full; the map then says over which level it breaks, note by note.',
      ],
      ['At the piano', 'is a lesson without steps: any exercise in any key, as you would sit there.'],
      ['Start', 'records a free take until you stop. What is sung says what you asked for: the page hears better when it knows.'],
      ['Listen to', 'chooses the microphone, an audio file, or the simulated singer where you only want to try things out.'],
    ],
  },
  {
    at: `${SINGER}/lessons/[lessonId]`,
    name: 'Lesson',
    shows: [
      'The step in hand, the keys, and the voice as it is sung. What was agreed last time stands on top.',
      'Each key is judged when it was heard: yes, not yet with the reason, or not told. Your ear has the last word.',
    ],
    press: [
      ['Space', 'starts and stops.'],
      ['/', 'sings something else: an item of the week, a phrase of a song, anything from the shelf.'],
      ['↑ and ↓', 'take the exercise a key higher or lower and go on that way.'],
      ['K', 'takes the key of the lowest note you played, on the ladder’s keys, a MIDI keyboard or letters.'],
      ['L', 'makes the tune you played last an exercise: from the key it was played in, upward.'],
      ['O', 'sings the same keys on another sound, beside the first.'],
      ['M', 'marks what you hear while it is sung.'],
      ['End the lesson', 'shows what was sung; put it into the week, write a note and what was agreed.'],
    ],
  },
  {
    at: `${SINGER}/map`,
    name: 'Map',
    shows: [
      'All takes together: the range touched and usable, each passaggio going up and coming down with its uncertainty, and what happens there: a flip, a toggle, a blend, pulled chest.',
      'Until two takes of two days agree it is a first impression, drawn thin. The vowel turn is where a vowel, not the register, changes colour.',
    ],
    press: [
      [
        'A change on the ladder',
        'shows the takes that say so, plays them, and lays every pass of months over each other, to be seen and heard one by one.',
      ],
      ['Pinned by you', 'sets a value by your word: plan, songs and keys keep to it. Take the pin out and the machine speaks again.'],
      ['As it stood on', 'shows the map of an earlier day.'],
      ['Choose the work', 'leads to the plan.'],
    ],
  },
  {
    at: `${SINGER}/takes/[takeId]`,
    name: 'Review',
    shows: ['One take heard again, the machine’s changes and your word on each side by side. What you say is counted three times as much.'],
    press: [
      ['A', 'says: right, it is as the machine says. X: there is nothing.'],
      ['M', 'marks a change you hear where the cursor stands.'],
      ['Listen without the machine', 'hides what it found, so that you judge by ear first; then compares.'],
      ['Beside it', 'lays a second take, of any singer, faintly beside this one. 3 plays both at the note under the cursor.'],
      ['How the change was measured', 'shows pitch, harmonics and what spoke for it.'],
    ],
  },
  {
    at: `${SINGER}/plan`,
    name: 'Plan',
    shows: [
      'A week worked out from the map, what is agreed and today’s health: each exercise with its keys, sound, tempo, minutes, and the reason. Every set begins warm and ends cool.',
      'The road ahead shows the coming weeks with their aims, songs and dates.',
    ],
    press: [
      ['An item', 'opens it: other keys, sound, days, minutes. Drag it, or use its arrows, to another place.'],
      ['Exercise', 'adds one from the shelf, in keys that fit this voice.'],
      ['Taught as', 'works the plan out by another school; Phase and Grades say where the singer stands.'],
      ['Assign week', 'gives the week to the singer; the practice sheet opens.'],
      ['At hand', 'has straws and glasses, a limit for belting, and a trial of one: what straw and humming do to this voice’s leap.'],
      ['Sets', 'has warm-ups of 3, 8 and 15 minutes and sets for a morning, a show or the day after, and keeps yours.'],
      ['A date', 'bends the road: a recital, an exam, a holiday. On its day the phone has the set for it.'],
    ],
  },
  {
    at: '/assignments/[assignmentId]',
    name: 'Practice sheet',
    shows: ['What the singer does this week, as it was assigned: to be printed, sent, or taken along as sound, notes or a calendar.'],
    press: [
      ['To their phone', 'makes a link to the singer’s own practice page. It needs no account; an older link ends.'],
      ['Hear it', 'plays the follow-along as the singer will.'],
    ],
  },
  {
    at: `${SINGER}/progress`,
    name: 'Progress',
    shows: [
      'What was practised, what was told, and what the voice measured over time. A change is called one only when it is more than days differ by; otherwise it says “can’t tell yet”.',
    ],
    press: [
      ['Ready for more?', 'says which exercises have been sung well enough for the next grade, and asks you.'],
      ['A line of the log', 'shows the singer’s own words; your answer stands on their phone.'],
      ['Today’s voice', 'shows the one-minute checks from the phone against this voice’s good days, and how long it took to be as usual.'],
      ['Hear the siren of', 'a day: two of them, one after the other, tell more than a curve.'],
    ],
  },
  {
    at: `${SINGER}/songs`,
    name: 'Songs of a singer',
    shows: [
      'The songs this singer works on, each in its chosen key, whether one had better wait, and which of the studio’s others would fit.',
    ],
    press: [
      ['The studio’s other songs', 'says which would fit; open one to work on it with this singer.'],
      ['Sing one in', 'writes down a melody that is sung without accompaniment, to be corrected on the staff.'],
      ['As a show', 'puts songs in order with the load of the evening and where to rest.'],
    ],
  },
  {
    at: `${SINGER}/songs/[songId]`,
    name: 'A song on the ladder',
    shows: [
      'The melody beside the voice: where it crosses a change, how long it stays there, on which vowel, and each phrase’s risk with its reason.',
      'All keys are ranked with their deciding bars. A voice locked in heavy chest under its change is helped by going up; lower only where the top passes.',
      'A phrase plays take after take, week against week.',
    ],
    press: [
      ['↑ and ↓', 'take the song a semitone higher or lower. C chooses the key.'],
      ['Like this / Not like this', 'records your voice on the phrase in this key; the singer hears it before they sing.'],
      ['W', 'puts the phrase into the week, on ng first.'],
      ['R', 'records; afterwards the bars that were called risky are compared with what came true.'],
      [
        'How to take it',
        'keeps your choice for a high phrase: chest, mix, head, falsetto. Takes are then held to it: handed over, carried, or not told.',
      ],
      ['With the piano', 'plays along from the phrase that is shown, for headphones; R begins.'],
    ],
  },
  {
    at: '/songs',
    name: 'Songs',
    shows: ['The studio’s songs. A file is read in this browser; only the melody goes to the server.'],
    press: [
      ['From a file', 'reads MusicXML (also compressed) or MIDI; choose the part that is the melody.'],
      ['Write a song', 'takes a melody as text, with the staff beside it.'],
    ],
  },
  {
    at: '/songs/[songId]',
    name: 'A song',
    shows: ['Its sheet, and whom it fits in which key.'],
    press: [
      ['Whom it fits', 'names each singer’s best key; the name opens the song on that singer’s ladder.'],
      ['Sheet', 'prints it on one page; MusicXML and MIDI write it out for other programs.'],
    ],
  },
  {
    at: '/exercises',
    name: 'Exercises',
    shows: [
      'The shelf: scales, sirens, straws, toggles, holds and phrases in strands (chest, head, crossing, evenness, range, straw), each in grades 1 to 6.',
    ],
    press: [
      ['Find', 'looks in names, sounds and aims at once.'],
      ['Write one', 'opens the staff: an exercise of your own, with where its keys lie in a voice.'],
      ['Like this / Not like this', 'records ten seconds of your voice; the singer hears both before the first key.'],
    ],
  },
  {
    at: '/lessons',
    name: 'Lessons of your own',
    shows: ['Steps you go through with a singer, in your order: what is asked, on which sound, in which keys.'],
    press: [['Make your own from', 'copies a lesson that is there, to be changed step by step.']],
  },
  {
    at: '/together',
    name: 'Several together',
    shows: [
      'What a section, a choir or a class may sing at once: the notes all of them have, and sets in keys that stay in everybody’s voice and go against nobody’s rules. Low voices sing an octave under high ones.',
      'A set can be given to all of them to practise: each has it on the phone in their own octave, beside the week they have or instead of it.',
    ],
    press: [
      [
        'Who sings',
        'is ticked one by one, or a section at a time; who was not heard yet, or told of trouble today, is left out and named.',
      ],
    ],
  },
  {
    at: '/straws',
    name: 'Straws',
    shows: ['How hard a straw blows back, by its width and length, and an order from easy to narrow for the straws you have.'],
    press: [['Inner width', 'and length are measured with a ruler; the picture follows.']],
  },
  {
    at: '/ears',
    name: 'Ears',
    shows: [
      'Your own hearing, trained and measured on made voices whose truth is known: place a change, name it, chest or head, which is louder. It grows harder until four answers in five are right.',
      'Slides of your own singers, heard blind: how far you agree with the machine, with the other coaches, and with yourself four weeks before. What the machine hears and you don’t weighs less on the maps.',
    ],
    press: [
      ['Space', 'plays; after an answer, the next one.'],
      ['Our own singers', 'slides of the studio; you say what happens and where, then see what the machine hears.'],
      ['Begin anew', 'forgets this browser’s record of a task.'],
    ],
  },
  {
    at: '/post',
    name: 'Post',
    shows: [
      'Messages to singers and coaches. Where a mail server is set they go by themselves; otherwise you copy them and hand them over.',
    ],
    press: [['Send what waits', 'tries once more what the mail server would not take.']],
  },
  {
    at: '/settings',
    name: 'Studio settings',
    shows: ['The studio’s name, its school, and how long recordings are kept.'],
    press: [
      ['How the studio teaches', 'chooses the school: names of changes, order of exercises and phases follow.'],
      ['Take the studio out', 'writes everything into one file; Bring one in reads such a file.'],
    ],
  },
  {
    at: '/settings/coaches',
    name: 'Coaches',
    shows: ['Who works here. Owners do everything, coaches all but the studio’s own affairs, readers look only.'],
    press: [['Make the offer', 'writes a message with a way in, good for a week.']],
  },
  {
    at: '/settings/log',
    name: 'Who did what',
    shows: ['Who looked at, took out and changed what. Nobody can change it.'],
    press: [],
  },
  {
    at: '/settings/account',
    name: 'Your account',
    shows: ['Your password, where you are signed in, and a second factor for who wants it.'],
    press: [
      ['Language', 'how Wendel speaks to you in this browser; beside it, what it calls the notes.'],
      ['Under the notes of exercises', 'puts do re mi there, counted from whatever key is sung, for whoever sings on them.'],
      ['Sign out there', 'ends a session on another device.'],
      ['A code from your phone', 'asks for a second factor at the door from now on.'],
    ],
  },
]);

/** Whether an address is one of a page's: names in brackets stand for anything. */
const isAt = (at: string, path: string): boolean => {
  const [meant, there] = [at.split('/'), path.split('/')];
  return meant.length === there.length && meant.every((part, i) => part.startsWith('[') || part === there[i]);
};

/** The help of the page at an address; undefined where there is none. @example helpAt('/singers/1/map')?.name // 'Map' */
export const helpAt = (path: string): HelpPage | undefined => HELP.find(({ at }) => isAt(at, path));

const plain = (text: string) => text.toLowerCase().normalize('NFD').replace(/\p{M}/gu, '').replace(/[’']/g, '');

/** Pages whose help, as `say` says it, holds every word, those that name it first. @example findHelp('passaggio')[0].name // 'Map' */
export function findHelp(words: string, say: (text: string) => string = (text) => text): HelpPage[] {
  const asked = plain(words).split(/\s+/).filter(Boolean);
  if (asked.length === 0) return [];
  const pages = HELP.map((page) => ({
    page,
    name: plain([page.name, ...page.press.map(([what]) => what)].map(say).join(' ')),
    all: plain([page.name, ...page.shows, ...page.press.flat()].map(say).join(' ')),
  }));
  const named = (text: string) => asked.filter((word) => text.includes(word)).length;
  return pages
    .filter(({ all }) => asked.every((word) => all.includes(word)))
    .sort((a, b) => named(b.name) - named(a.name))
    .map(({ page }) => page);
}
