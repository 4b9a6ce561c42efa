<script lang="ts">
  /** Takes a photograph by camera or file, sends it, and offers to take it back. */
  import type { Snippet } from "svelte";

  import { notice } from "../lib/notice.svelte";

  interface Props {
    /** What the photograph is of, for a reader. */
    of: string;
    /** Sends it; the number of the change, for undo. */
    onsend: (file: File) => Promise<{ change_id: number }>;
    onchanged: () => void | Promise<void>;
    /** What is tapped: each opens the picker. */
    children: Snippet<[{ open: () => void; busy: boolean }]>;
  }
  const { of, onsend, onchanged, children }: Props = $props();
  let picker = $state<HTMLInputElement>();
  let busy = $state(false);

  async function keep(): Promise<void> {
    const file = picker?.files?.[0];
    if (!file) return;
    busy = true;
    try {
      const { change_id } = await onsend(file);
      await onchanged();
      notice.canUndo("The photograph is kept, without where it was taken.", change_id, async () =>
        onchanged(),
      );
    } catch (problem) {
      notice.fail(problem);
    } finally {
      busy = false;
      if (picker) picker.value = "";
    }
  }
</script>

<input
  bind:this={picker}
  class="unseen"
  type="file"
  tabindex="-1"
  accept="image/jpeg,image/png,image/webp"
  capture="environment"
  aria-label="A photograph of {of}"
  onchange={() => void keep()}
/>
{@render children({ open: () => picker?.click(), busy })}
