import type { EndFeel } from '../terms.js';

/**
 * End feels as hands tell them, without their names.
 *
 * @see end feels as taught, from memory; the wording is ours
 */
export const END_FEEL_TOLD: Readonly<Record<EndFeel, readonly string[]>> = {
  soft: [
    'The last degrees slow down gently; flesh meets flesh, and leaning on it only squeezes.',
    'It ends like a cushion pressed against another: no edge, no pull, a little more with every push.',
  ],
  firm: [
    'The pull grows over the last few degrees, like leather being stretched; a little give is left, and it comes back slowly.',
    'It comes to an end with a tight, even pull and a degree or two of give.',
  ],
  hard: [
    'It stops all at once, like two blocks meeting; leaning on it changes nothing, and it does not hurt.',
    'From one degree to the next there is an edge: no pull before it, no give behind it.',
  ],
  empty: [
    'Nothing holds it back under your hand; they ask you to stop, long before any pull is felt.',
    'Your hand meets no resistance at all, and yet they pull a face and take hold of your arm.',
  ],
  springy: [
    'Short of the end it meets something, and jumps back a few degrees when you let go.',
    'It rebounds, as if a piece of rubber lay in the joint; it does the same again on the second try.',
  ],
  spasm: [
    'Early on the muscles grab, sudden and shaking, and the limb is thrown back against your hand.',
    'A quick tremble goes through the muscle and locks the way; slower, it grabs again at the same place.',
  ],
};

/**
 * Substitutions as eyes tell them, without their names, by their label in the library.
 *
 * @see common practice, no source
 */
export const SUBSTITUTIONS_TOLD: Readonly<Record<string, string>> = {
  'trunk leans': 'the breastbone wanders off over one hip',
  'low back arches': 'a hand slides in between the waist and the table',
  'pelvis hikes': 'one side of the waist gets shorter',
  'leg turns out': 'the knee cap and the toes no longer look where they looked',
  'hip bends': 'the crease of the groin gets deeper',
  'heel lifts': 'a sheet of paper can be pulled out from under the back of the foot',
  'shoulder tips forward': 'the front of the shoulder rises off the table',
  'thigh drifts': 'the knee no longer lies where it lay',
  'trunk turns': 'the buttons of the shirt look to another wall',
  'shoulder shrugs': 'the neck gets shorter on that side',
  'trunk rolls': 'one half of the back comes off the table',
  'pelvis rolls back': 'the tailbone curls up and the small of the back presses down',
  'knee bends': 'the hollow behind the leg gets deeper',
  'ribs flare': 'the lowest edge of the chest stands out under the shirt',
  'trunk leans back': 'the shoulders fall behind the hips',
  'pelvis lifts': 'the buttock of that side comes off the table',
  'arch drops': 'the inner edge of the foot spreads on the floor',
  'arm drifts out': 'the gap between elbow and ribs grows',
  'pelvis turns': 'one of the two front bones below the waist comes forward',
  'pelvis tilts': 'the line of the belt is no longer level',
  'knee rolls in': 'the knee cap looks at the other knee',
  'elbow bends': 'the forearm no longer runs on in the line of the upper arm',
  'knee leaves 90°': 'the corner behind the knee opens',
  'trunk bends forward': 'the chin comes nearer to the lap',
};
