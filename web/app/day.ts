/** Today as `YYYY-MM-DD`, in the maker's own time zone. */
export const today = (): string => new Date().toLocaleDateString('sv');
