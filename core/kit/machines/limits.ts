/** Limits of a machine, all of them lengths; zero or missing means that there is none. */
export const LIMITS = {
  maxWidth: { name: 'Widest', says: 'widest piece that goes over or under it' },
  maxThickness: { name: 'Thickest', says: 'thickest piece it opens to' },
  maxLength: { name: 'Longest', says: 'longest piece it reaches over' },
  minLength: { name: 'Shortest', says: 'shortest piece it feeds or holds' },
  minThickness: { name: 'Thinnest', says: 'thinnest piece without a carrier' },
  bite: { name: 'Most a pass', says: 'most it takes off in one pass' },
  hardBite: {
    name: 'Most a pass, hardwood',
    says: 'most it takes off hardwood in one pass; as of other wood if none',
  },
  snipe: { name: 'Snipe', says: 'how far from each end it cuts deeper than it is set' },
  takes: { name: 'Takes at least', says: 'least that comes off both faces together there' },
  depth: { name: 'Deepest', says: 'deepest hole or groove it reaches' },
  reach: { name: 'Reach', says: 'from the column or fence to the cutter’s middle' },
  collet: { name: 'Largest shank', says: 'largest shank its chuck or collet holds' },
  margin: { name: 'Hold-down margin', says: 'kept free of cuts all round for clamps' },
  dial: { name: 'Dial', says: 'finest step it is set by' },
  turn: { name: 'A turn of the crank', says: 'how far one turn moves its bed; none with a read-out' },
} as const satisfies Record<string, { name: string; says: string }>;

export type LimitName = keyof typeof LIMITS;
