/** What a maker may wish to keep when an opening and the aids in its joints are in each other’s way: one line each. */
export const WISHES = {
  place: { keeps: 'the opening stays where it is', may: 'The opening may move across' },
  boards: { keeps: 'the boards keep their widths', may: 'Two boards at a joint may share their width anew' },
  aids: { keeps: 'the aids keep their places and size', may: 'The aids may be placed anew, or be smaller' },
} as const;
export type WishName = keyof typeof WISHES;
/** All wishes, in the order they are asked. */
export const WISH_NAMES = Object.keys(WISHES) as readonly WishName[];
