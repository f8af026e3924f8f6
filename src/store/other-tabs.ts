/** A small store that is kept in this browser. */
interface Kept {
  persist: { rehydrate: () => void | Promise<void> };
}

/** Two tabs are of one mind: what one changes of a small store the other does not put back. */
export function followOtherTabs(store: Kept, key: string): void {
  if (typeof window === 'undefined') return;
  window.addEventListener('storage', (event) => {
    if (event.key === key) void store.persist.rehydrate();
  });
}
