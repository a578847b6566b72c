import { nameWindow } from '../../app/title';
import { Menu } from 'lucide-react';
import { type CSSProperties, Suspense, useEffect, useRef } from 'react';
import { Link, matchPath, NavLink, Outlet, useLocation } from 'react-router';
import type { Display } from '../../../core/units';
import { ADDRESSES } from '../../app/addresses';
import { problemText, useKitQuery } from '../../app/api';
import '../../app/keeping';
import { useReach } from '../../app/outbox-view';
import { currentShop, isShopless } from '../../app/shop-choice';
import { DropDown } from '../../parts/DropDown';
import { Skips } from '../../parts/layout';
import { lazily } from '../../parts/lazily';
import { Bell } from './Bell';
import { FirstUse, useFirstUse } from './FirstUse';
import { Waiting } from './Waiting';

const UnitsFields = lazily(() => import('./UnitsFields'), 'UnitsFields');

const NAV = [
  ['/today', 'Today'],
  ['/jobs', 'Jobs'],
  ['/calendar', 'Calendar'],
  ['/rack', 'Rack'],
  ['/kit', 'Kit'],
  ['/log', 'Log'],
  ['/tables', 'Tables'],
] as const;

const SKIPS = [['work', 'To the work']] as const;

const displayText = ({ system, fraction }: Display) =>
  system === 'mm' ? 'millimetres' : fraction === 0 ? 'inches, decimal' : `inches, 1/${fraction}`;

/** What the window of an address is called; screens of a job name it themselves. */
function titleOf(pathname: string): string | undefined {
  const known = Object.entries(ADDRESSES).find(([path]) => matchPath(`/${path}`, pathname));
  return known ? known[1] : 'Nothing here';
}

/** The screen that is shown is named in the window's title, and a new one is told by the focus on its heading. */
function useArrival() {
  const { pathname } = useLocation();
  const title = titleOf(pathname);
  const first = useRef(pathname);
  useEffect(() => {
    if (title) nameWindow(title);
  }, [title]);
  useEffect(() => {
    if (first.current === pathname) return;
    first.current = pathname;
    let tries = 0;
    // The screen and what it shows may still be on their way.
    const timer = setInterval(() => {
      const found = document.querySelector<HTMLElement>('main h1');
      const heading = found && getComputedStyle(found).visibility !== 'hidden' ? found : undefined;
      if (heading) {
        heading.tabIndex = -1;
        heading.focus({ preventScroll: true });
      }
      if (heading || ++tries > 40) clearInterval(timer);
    }, 50);
    return () => clearInterval(timer);
  }, [pathname]);
}

/** The kit of the shop this page works in; on a screen that belongs to no shop nobody is asked for one that is not chosen. */
function useShopHere() {
  const { pathname } = useLocation();
  const skip = isShopless(pathname) && currentShop() === undefined;
  const { data: kit, error } = useKitQuery(undefined, { refetchOnFocus: true, skip });
  return { kit, error, known: kit !== undefined || error !== undefined || skip };
}

/**
 * The screen of an address. Until it is known how the shop reads numbers it fetches what it shows, and is not seen: what is
 * typed by then would be taken for the wrong unit.
 */
function ScreenHere({ known }: { known: boolean }) {
  return (
    <div className={known ? 'contents' : 'invisible contents'}>
      <Suspense fallback={null}>
        <Outlet />
      </Suspense>
    </div>
  );
}

/** The page around every screen: where to go, whose shop it is, and how it reads numbers. */
export function Shell() {
  const { kit, error, known } = useShopHere();
  const { away, open } = useReach();
  useArrival();
  const hint = useFirstUse();
  // At the bench there is nothing but the work, which has a tray and a way out of its own.
  const atBench = matchPath('/jobs/:id/bench', useLocation().pathname) !== null;
  if (atBench)
    return (
      <>
        {hint.text && <FirstUse text={hint.text} onDone={hint.done} />}
        <ScreenHere known={known} />
      </>
    );
  return (
    <div className="min-h-dvh" style={hint.text ? ({ '--hint': '32px' } as CSSProperties) : undefined}>
      <Skips label="Past the head" to={SKIPS} />
      <header className="border-line bg-sheet flex h-(--head) print:hidden items-center gap-6 border-b px-5 max-desk:gap-3 max-desk:px-3">
        <span className="text-[18px] font-semibold tracking-tight">Junta</span>
        <nav aria-label="Main" className="flex h-full gap-4 max-desk:hidden">
          {NAV.map(([to, name]) => (
            <NavLink
              key={to}
              to={to}
              className={({ isActive }) =>
                `flex items-center border-b-2 pt-0.5 text-[15px] font-medium ${isActive ? 'border-chalk text-ink' : 'text-graphite hover:text-ink border-transparent'}`
              }
            >
              {name}
            </NavLink>
          ))}
        </nav>
        <span className="ml-auto flex min-w-0 items-center gap-4 text-[14px] max-desk:gap-2">
          <Waiting />
          {error !== undefined && away === undefined && (
            <span role="alert" className="text-red">
              {problemText(error)}
            </span>
          )}
          {open && (
            <span
              className="text-red"
              data-testid="open-house"
              title="There is no sign-in yet: whoever reaches this address reads and changes everything."
            >
              Anybody on this network is the shop
            </span>
          )}
          <Link
            to="/shops"
            title="Shops: go to another, set one up"
            className="text-graphite hover:text-chalk truncate max-desk:hidden pointer-coarse:leading-11"
          >
            {kit?.shop.name ?? 'Shops'}
          </Link>
          <span className="max-desk:hidden">{kit && <UnitsChoice />}</span>
          <PhoneMenu />
        </span>
      </header>
      {hint.text && <FirstUse text={hint.text} onDone={hint.done} />}
      <Bell skip={kit === undefined} />
      <ScreenHere known={known} />
    </div>
  );
}

/** Where to go and how numbers are read, folded into one button where the header has no room. */
function PhoneMenu() {
  const { kit } = useShopHere();
  return (
    <DropDown
      label="Menu"
      named="Menu"
      className="action desk:hidden h-11! w-11 justify-center border-0 px-0"
      panel="w-[min(88vw,300px)] p-3"
      button={<Menu size={22} />}
    >
      {(close) => (
        <>
          <nav aria-label="Main" className="flex flex-col pb-2">
            {NAV.map(([to, name]) => (
              <NavLink
                key={to}
                to={to}
                onClick={close}
                className={({ isActive }) =>
                  `flex h-11 shrink-0 items-center rounded px-2 text-[17px] font-medium ${isActive ? 'bg-chalk-wash text-chalk' : ''}`
                }
              >
                {name}
              </NavLink>
            ))}
          </nav>
          <Link
            to="/shops"
            onClick={close}
            className="text-graphite border-line flex h-11 items-center border-t px-2 text-[15px]"
          >
            {kit?.shop.name ?? 'Shops'}
          </Link>
          <div className="flex flex-col gap-3 p-2">{kit && <UnitsFields display={kit.shop.display} />}</div>
        </>
      )}
    </DropDown>
  );
}

/** Switches the whole shop between inches and millimetres. */
function UnitsChoice() {
  const { kit } = useShopHere();
  if (!kit) return null;
  const { display } = kit.shop;
  return (
    <DropDown
      label="How numbers are read"
      className="action h-7"
      panel="gap-3 p-4"
      button={displayText(display)}
    >
      {() => <UnitsFields display={display} />}
    </DropDown>
  );
}
