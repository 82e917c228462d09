/** What can be chosen on the bench, with the reasons where teachers differ. */

export const slurs = [
  { label: 'hammer-on', value: 'hammer' },
  { label: 'pull-off', value: 'pull' },
  { label: 'both', value: 'both' },
  {
    label: 'as written',
    value: 'asWritten',
    about: 'The fingers in the order given: up a hammer-on, down a pull-off, such as 1314',
  },
] as const

export const orders = [
  { label: 'up', value: 'up' },
  { label: 'down', value: 'down' },
  { label: 'both', value: 'both', about: 'Up and down without doubling the turning notes' },
  {
    label: 'cascade',
    value: 'cascade',
    about: 'One note after another gives way to the next lower one, down to the bottom and back',
  },
] as const

export const shapeOrders = [
  ...orders,
  {
    label: 'finger by finger',
    value: 'oneByOne',
    about: 'One note after another, the lowest first, goes down a string; then they come back up',
  },
] as const

/** Which way the notes of each string go, whichever way the strings follow each other. */
export const withins = [
  { label: 'as it comes', value: '', about: 'The way the pattern goes' },
  { label: 'up', value: 'up', about: 'Each string from its lowest note: hammer-ons' },
  { label: 'down', value: 'down', about: 'Each string from its highest note: pull-offs' },
  { label: 'up and down', value: 'both', about: 'Each string up and down again' },
] as const

export const turns = [
  { label: 'once', value: '', about: 'No note sounds twice in a row where it turns round' },
  { label: 'twice', value: 'again', about: 'It sounds again as the first one of the way back' },
] as const

export const anews = [
  { label: 'runs on', value: '' },
  { label: 'cell', value: 'cell' },
  { label: 'string', value: 'string' },
  { label: 'bar', value: 'bar' },
] as const

export const starts = [
  { label: 'on its root', value: 'root', about: 'On the first root from that fret on' },
  { label: 'anywhere', value: 'any', about: 'On the first note of the key from that fret on' },
] as const

export const tapOrders = [
  { label: 'tap low middle', value: 'tapLowMiddle' },
  { label: 'tap middle low', value: 'tapMiddleLow' },
  { label: 'in turn', value: 'inTurn' },
] as const

export const ladderRules = [
  { label: 'steps', value: 'steps', about: 'The click goes up by so many bpm' },
  { label: 'percent', value: 'percent', about: 'The click goes up by so many percent' },
  {
    label: 'doubling',
    value: 'doubling',
    about: 'The click stays; the notes per beat are doubled: 3 to 6, or 1, 2, 4',
  },
  {
    label: 'both in turn',
    value: 'both',
    about: 'The click goes up to the target, then twice the notes from where that is not slower',
  },
  { label: 'list', value: 'list', about: 'Rungs of your own' },
] as const

export const attackRules = [
  { label: 'all picked', value: 'picked', about: 'Every note has a stroke: the yardstick' },
  { label: 'slurred', value: 'slurred', about: 'One stroke starts each cell and each new string' },
  { label: 'legato', value: 'legato', about: 'One stroke a string; cells run into one another' },
  {
    label: 'hammers only',
    value: 'hammers',
    about: 'Rising notes are hammered, all others picked',
  },
  { label: 'pulls only', value: 'pulls', about: 'Falling notes are pulled off, all others picked' },
  { label: 'no pluck', value: 'noPluck', about: 'The fretting hand alone' },
  {
    label: 'picked once',
    value: 'pickOnce',
    about: 'One stroke starts each cell; new strings begin with a hammer-on from nowhere',
  },
  { label: 'in turn', value: 'inTurn', about: 'Picked and slurred by a cycle of your own' },
] as const

export const strokeRules = [
  { label: 'alternate', value: 'alternate', about: 'Strictly down and up: the steadiest hand' },
  { label: 'economy', value: 'economy', about: 'Goes on in the direction of a string change' },
  { label: 'all down', value: 'down', about: 'The same stroke, the same sound' },
  { label: 'fingers i m', value: 'fingers', about: 'Index and middle finger in turn' },
  {
    label: 'keep time',
    value: 'keepTime',
    about: 'The hand keeps time; slurred notes take up the silent stroke',
  },
] as const

export const spreads = [
  { label: 'next to each other', value: 'neighbours', about: 'The next neighbouring strings' },
  { label: 'one moves away', value: 'widening', about: 'One string stays, the other moves away' },
  { label: 'both move apart', value: 'opening', about: 'Both move apart from the middle' },
  { label: 'groups I name', value: 'own', about: 'Groups of strings in an order of your own' },
] as const

export const backs = [
  { label: 'no', value: 'none' },
  { label: 'the same way', value: 'return', about: 'Over the same strings, each cell as it is' },
  { label: 'mirrored', value: 'mirror', about: 'Note for note, with the order reversed' },
] as const

export const units = [
  { label: 'times', value: 'times' },
  { label: 'beats', value: 'beats' },
  { label: 'seconds', value: 'seconds' },
] as const

export const shiftMoments = [
  { label: 'each cell', value: 'cell' },
  { label: 'each far string', value: 'leg' },
  { label: 'each time round', value: 'round' },
] as const

export const stretches = [
  { label: 'middle 1-2-4', value: 'middle', about: 'Spares the weaker fingers' },
  { label: 'ring 1-3-4', value: 'ring', about: 'Opens the hand less at the index' },
] as const

export const tapFingers = [
  { label: 'index', value: 1, about: 'The pick must be put away' },
  { label: 'middle', value: 2, about: 'The pick stays between thumb and index' },
  { label: 'ring', value: 3 },
  { label: 'little', value: 4 },
] as const

export const divisions = [1, 2, 3, 4, 6, 8].map((n) => ({ label: String(n), value: n }))

/** How two notes may share their time: the share of the first, 0 for straight. */
export const swings = [
  { value: 0, label: 'straight' },
  { value: 0.58, label: 'a little swung, 58 %' },
  { value: 0.667, label: 'swung like triplets, 67 %' },
  { value: 0.75, label: 'swung hard, 75 %' },
]
