import { KEPT } from "../../offline/keys";

/** Whether what is shown came from the shop just now, or is what it answered last. */
class Away {
  /** When the oldest answer shown was given; null while the shop answers. */
  since = $state<Date | null>(null);
  /** Something that the page shown wants was never kept on this device. */
  notKept = $state(false);

  heard(response: Response): void {
    const kept = response.headers.get(KEPT);
    if (kept === null) {
      this.since = null;
      this.notKept = false;
    } else {
      const at = new Date(kept);
      if (Number.isNaN(at.getTime())) this.notKept = true;
      else this.since = this.since && this.since < at ? this.since : at;
    }
  }
}

export const away = new Away();
