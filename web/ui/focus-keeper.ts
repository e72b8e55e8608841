import { useEffect } from 'react';

/** How many frames components get to put the focus somewhere themselves, as a list that closes does. */
const FRAMES = 3;

/**
 * Keeps the focus off the page's body. When what has the focus is taken away (a button that did its work, a card that was answered), the
 * focus goes to the nearest thing round it that is still there and can take it: the ruling, the list or the station in which the work goes
 * on. Those are named, so that a reader says where it is.
 */
export function useFocusKeeper(): void {
  useEffect(() => {
    /** What last had the focus, and all that it stood in, from the inside out. */
    let path: Element[] = [];
    let isWaiting = false;
    const remember = (event: FocusEvent) => {
      path = [];
      for (let at = event.target as Element | null; at; at = at.parentElement) path.push(at);
    };
    const look = (frames: number) => {
      if (!isLost(path)) {
        isWaiting = false;
        return;
      }
      if (frames > 0) {
        requestAnimationFrame(() => look(frames - 1));
        return;
      }
      isWaiting = false;
      homeOf(path)?.focus({ preventScroll: true });
    };
    const observer = new MutationObserver(() => {
      if (isWaiting || !isLost(path)) return;
      isWaiting = true;
      look(FRAMES);
    });
    document.addEventListener('focusin', remember);
    observer.observe(document.body, {
      subtree: true,
      childList: true,
      attributes: true,
      attributeFilter: ['disabled', 'hidden'],
    });
    return () => {
      document.removeEventListener('focusin', remember);
      observer.disconnect();
    };
  }, []);
}

/** Whether the focus fell to the body because what had it is gone or can have it no more; to press beside everything is no loss. */
function isLost([last]: readonly Element[]): boolean {
  return (
    last !== undefined &&
    (document.activeElement ?? document.body) === document.body &&
    (!last.isConnected || last.matches(':disabled') || !isShown(last))
  );
}

function isShown(element: Element): boolean {
  return element.getClientRects().length > 0;
}

function homeOf(path: readonly Element[]): HTMLElement | null {
  const home = path
    .slice(1)
    .find(
      (element) =>
        element instanceof HTMLElement && element.isConnected && element.hasAttribute('tabindex') && isShown(element),
    );
  return (home as HTMLElement | undefined) ?? document.getElementById('main');
}
