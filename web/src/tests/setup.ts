import "fake-indexeddb/auto";

/** What jsdom lacks and the parts need. */
class StillObserver implements ResizeObserver {
  observe(): void {
    /* sizes never change here */
  }
  unobserve(): void {
    /* nothing is observed */
  }
  disconnect(): void {
    /* nothing is observed */
  }
}

globalThis.ResizeObserver ??= StillObserver;
