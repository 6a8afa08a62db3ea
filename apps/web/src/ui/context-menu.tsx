import { Menu, MenuButton, MenuItem, MenuItems, MenuSection, MenuSeparator } from '@headlessui/react';
import { Fragment, useEffect, useRef } from 'react';
import { useContextMenu } from './context-menu-place.ts';

/** The context menu, wherever it was opened; there is one on the page. */
export function ContextMenu() {
  const open = useContextMenu((state) => state.open);
  return open && <OpenMenu key={`${open.x} ${open.y} ${open.title}`} />;
}

function OpenMenu() {
  const { x, y, title, parts, before } = useContextMenu((state) => state.open) ?? nothing;
  const button = useRef<HTMLButtonElement>(null);
  // It opens as its button would, which nobody sees.
  useEffect(() => {
    button.current?.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowDown', bubbles: true, cancelable: true }));
  }, []);
  return (
    <Menu>
      {({ open }) => (
        <>
          <WhenClosed isOpen={open} then={() => giveBack(before)} />
          <MenuButton
            ref={button}
            data-menu-button
            tabIndex={-1}
            aria-label={title}
            className="pointer-events-none fixed size-0 opacity-0"
            style={{ left: x, top: y }}
          />
          <MenuItems
            anchor={{ to: 'bottom start', padding: 8 }}
            aria-label={title}
            data-testid="context-menu"
            className="z-50 min-w-[210px] max-w-[320px] rounded-xl border border-line bg-paper p-1 shadow-float outline-none"
          >
            {parts.map((part, i) => (
              <Fragment key={part[0].text}>
                {i > 0 && <MenuSeparator className="mx-2 my-1 h-px bg-line" />}
                <MenuSection>
                  {part.map(({ text, icon: Icon, keys, run, disabled, isDangerous }) => (
                    <MenuItem key={text} disabled={disabled}>
                      <button
                        type="button"
                        onClick={run}
                        className={`flex h-8 w-full items-center gap-2.5 rounded-lg px-2.5 text-left data-focus:bg-petrol-soft data-disabled:opacity-45 pointer-coarse:h-11 ${isDangerous ? 'text-stop' : ''}`}
                      >
                        {Icon ? <Icon size={15} className="shrink-0" aria-hidden /> : <span className="w-[15px]" />}
                        <span className="min-w-0 flex-1 truncate">{text}</span>
                        {keys && <span className="figures shrink-0 text-[12px] text-quiet">{keys}</span>}
                      </button>
                    </MenuItem>
                  ))}
                </MenuSection>
              </Fragment>
            ))}
          </MenuItems>
        </>
      )}
    </Menu>
  );
}

const nothing = { x: 0, y: 0, title: '', parts: [], before: null };

function WhenClosed({ isOpen, then }: { isOpen: boolean; then: () => void }) {
  const was = useRef(false);
  useEffect(() => {
    if (!isOpen && was.current) then();
    was.current = isOpen;
  });
  return null;
}

/** The menu is closed: what had the keys before has them again, unless a line of it gave them to something else. */
function giveBack(before: Element | null): void {
  useContextMenu.setState({ open: null });
  const isFree = document.activeElement === document.body || document.activeElement?.matches('[data-menu-button]');
  if (isFree && before instanceof HTMLElement && before.isConnected) before.focus({ preventScroll: true });
}
