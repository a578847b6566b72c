export * from './search';
export { WISHES, WISH_NAMES, type WishName } from './wishes';
