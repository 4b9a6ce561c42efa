import { KEPT } from "../offline/keys";

/** Whether what is shown came from the shop just now, or is what it answered last. */
class Away {
  /** When the oldest answer shown was given; null while the shop answers. */
  since = $state<Date | null>(null);

  heard(response: Response): void {
    const kept = response.headers.get(KEPT);
    if (kept === null) this.since = null;
    else {
      const at = new Date(kept);
      this.since = this.since && this.since < at ? this.since : at;
    }
  }
}

export const away = new Away();
