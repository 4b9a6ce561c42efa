import "./language";
import "fake-indexeddb/auto";

import type { Reference } from "../api/schema";
import { takeRules } from "../lib/figures/written";
import tables from "./reference.json";

// As the application has read them before any page is shown.
takeRules((tables as unknown as Reference).written);

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
