import { Menu } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useEffect, useRef, useState } from 'react';
import { NavLink, Outlet, useLocation, useMatches } from 'react-router';
import type { Display } from '../../../core/units';
import { problemText, useKitQuery } from '../../app/api';
import '../../app/keeping';
import { changeKit } from '../../app/kit';
import { useReach } from '../../app/outbox-view';
import { Toggle } from '../../parts/Choice';
import { Waiting } from './Waiting';

const NAV = [
  ['/jobs', 'Jobs'],
  ['/calendar', 'Calendar'],
  ['/rack', 'Rack'],
  ['/kit', 'Kit'],
  ['/tables', 'Tables'],
] as const;

const displayText = ({ system, fraction }: Display) =>
  system === 'mm' ? 'millimetres' : fraction === 0 ? 'inches, decimal' : `inches, 1/${fraction}`;

/** The screen that is shown is named in the window's title, and a new one is told by the focus on its heading. */
function useArrival() {
  const matches = useMatches();
  const { pathname } = useLocation();
  const title = (matches.at(-1)?.handle as { title?: string } | undefined)?.title;
  const first = useRef(pathname);
  useEffect(() => {
    if (title) document.title = `${title} · Junta`;
  }, [title]);
  useEffect(() => {
    if (first.current === pathname) return;
    first.current = pathname;
    let tries = 0;
    // The screen and what it shows may still be on their way.
    const timer = setInterval(() => {
      const heading = document.querySelector<HTMLElement>('main h1');
      if (heading) {
        heading.tabIndex = -1;
        heading.focus({ preventScroll: true });
      }
      if (heading || ++tries > 40) clearInterval(timer);
    }, 50);
    return () => clearInterval(timer);
  }, [pathname]);
}

/** The page around every screen: where to go, whose shop it is, and how it reads numbers. */
export function Shell() {
  const { data: kit, error } = useKitQuery(undefined, { refetchOnFocus: true });
  const { away, open } = useReach();
  useArrival();
  return (
    <div className="min-h-dvh">
      <header className="border-line bg-sheet flex h-11 print:hidden items-center gap-6 border-b px-5 max-desk:gap-3 max-desk:px-3">
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
          <span className="text-graphite max-desk:hidden">{kit?.shop.name}</span>
          <span className="max-desk:hidden">{kit && <UnitsChoice />}</span>
          <PhoneMenu />
        </span>
      </header>
      <Outlet />
    </div>
  );
}

/** Where to go and how numbers are read, folded into one button where the header has no room. */
function PhoneMenu() {
  const { data: kit } = useKitQuery();
  const [open, setOpen] = useState(false);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger
        className="action desk:hidden h-11! w-11 justify-center border-0 px-0"
        aria-label="Menu"
      >
        <Menu size={22} />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={2}
          className="sheet z-50 flex w-[min(88vw,300px)] flex-col p-3 shadow-lg"
        >
          <nav aria-label="Main" className="flex flex-col pb-2">
            {NAV.map(([to, name]) => (
              <NavLink
                key={to}
                to={to}
                onClick={() => setOpen(false)}
                className={({ isActive }) =>
                  `flex h-11 items-center rounded px-2 text-[17px] font-medium ${isActive ? 'bg-chalk-wash text-chalk' : ''}`
                }
              >
                {name}
              </NavLink>
            ))}
          </nav>
          <span className="text-graphite border-line border-t px-2 pt-2 text-[14px]">{kit?.shop.name}</span>
          <div className="flex flex-col gap-3 p-2">{kit && <UnitsFields display={kit.shop.display} />}</div>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** Switches the whole shop between inches and millimetres. */
function UnitsChoice() {
  const { data: kit } = useKitQuery();
  if (!kit) return null;
  const { display } = kit.shop;
  return (
    <Popover.Root>
      <Popover.Trigger className="action h-7">{displayText(display)}</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content align="end" sideOffset={6} className="sheet z-50 flex flex-col gap-3 p-4 shadow-lg">
          <UnitsFields display={display} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function UnitsFields({ display }: { display: Display }) {
  const set = (change: Partial<Display>) =>
    changeKit((shop) => ({ ...shop, display: { ...shop.display, ...change } }));
  return (
    <>
      <Toggle
        label="The shop measures in"
        value={display.system}
        onChange={(system) => set({ system })}
        options={[
          { value: 'inch', label: 'inches' },
          { value: 'mm', label: 'millimetres' },
        ]}
      />
      {display.system === 'inch' && (
        <Toggle
          label="Shown to"
          value={String(display.fraction)}
          onChange={(fraction) => set({ fraction: Number(fraction) as Display['fraction'] })}
          options={[16, 32, 64]
            .map((f) => ({ value: String(f), label: `1/${f}` }))
            .concat({ value: '0', label: 'decimal' })}
        />
      )}
      <p className="text-graphite max-w-60 text-[13px]">
        Areas, volumes, masses and temperatures go along. What was typed in the other system comes back as
        typed.
      </p>
    </>
  );
}
