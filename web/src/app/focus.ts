/**
 * Where the focus goes, in one place: when what had it is gone or can no longer be used, it goes to the
 * dialog that is open, or else to the step that is chosen, or else to the page's heading. It never falls
 * to the top of the page.
 */

const HOMES = [
  "[role=dialog] [data-autofocus], [role=dialog] button",
  "main [role=tab][aria-selected=true]",
  "main h1, h1",
];

/** Out of the page, or disabled for good: a button that only waits for its answer keeps the focus. */
const gone = (element: Element | null): boolean =>
  element instanceof HTMLElement &&
  (!element.isConnected ||
    ((element as HTMLButtonElement).disabled === true && !element.hasAttribute("data-loading")));

/** The place that takes the focus when it would be lost. */
export function home(page: Document): HTMLElement | null {
  for (const selector of HOMES) {
    const found = page.querySelector<HTMLElement>(selector);
    if (found) return found;
  }
  return null;
}

/** Watches the page from now on. */
export function keepFocus(page: Document): MutationObserver {
  let last: Element | null = null;
  page.addEventListener("focusin", (event) => {
    last = event.target as Element;
  });
  const watcher = new MutationObserver(() => {
    const active = page.activeElement;
    const nowhere = !active || active === page.body || gone(active);
    if (!nowhere || !gone(last)) return;
    const to = home(page);
    if (!to) return; // the page is still on its way: the next change looks again
    if (to.tabIndex < 0 && !to.hasAttribute("tabindex")) to.setAttribute("tabindex", "-1");
    to.focus({ preventScroll: true });
  });
  watcher.observe(page.body, {
    childList: true,
    subtree: true,
    attributes: true,
    attributeFilter: ["disabled"],
  });
  return watcher;
}
