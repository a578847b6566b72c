/*
 * Which shop this browser works in. Every request says it, so that a second shop beside it changes nothing; every page
 * works in one shop, and another one is a page loaded anew.
 */

const SHOP = 'junta-shop';
const WELCOMED = 'junta-welcomed';

function read(key: string): string | undefined {
  try {
    return localStorage.getItem(key) ?? undefined;
  } catch {
    // A browser that keeps nothing: what is chosen holds as long as the page.
    return undefined;
  }
}
function write(key: string, value: string | undefined): void {
  try {
    if (value === undefined) localStorage.removeItem(key);
    else localStorage.setItem(key, value);
  } catch {
    // As above.
  }
}

let current = read(SHOP);

/** The id of the shop this page works in; undefined until the server has said which there is. */
export const currentShop = (): string | undefined => current;

/** Whether somebody chose in this browser between the demo and a shop of their own. */
export const wasWelcomed = (): boolean => read(WELCOMED) !== undefined;

/** Addresses of screens that belong to no shop. */
const SHOPLESS = ['/start', '/start/shop', '/shops'];

/** Whether a screen belongs to no shop: it is shown also where none is chosen. */
export const isShopless = (pathname: string): boolean => SHOPLESS.includes(pathname);

/** What a request says of its shop. */
export const shopHeaders = (shop = current): Record<string, string> => (shop ? { 'Junta-Shop': shop } : {});

/** The one shop there was is the one this browser goes on in, whatever shops come beside it. */
export function rememberShop(id: string): void {
  if (current !== undefined) return;
  current = id;
  write(SHOP, id);
}

/** Goes on in another shop: the page is loaded anew, so that nothing of the one before is left on it. */
export function enterShop(id: string, at = '/today'): void {
  write(SHOP, id);
  write(WELCOMED, 'yes');
  location.assign(at);
}

/** The shop of this browser is gone: it is asked which one instead. */
export function forgetShop(): void {
  current = undefined;
  write(SHOP, undefined);
}
