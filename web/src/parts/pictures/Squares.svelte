<script lang="ts">
  /** A code to scan, from rows of 0 and 1, with the quiet edge that readers want. */
  interface Props {
    rows: readonly string[];
    words: string;
  }
  const { rows, words }: Props = $props();
  const QUIET = 4;
  const size = $derived(rows.length + 2 * QUIET);
  const path = $derived(
    rows
      .flatMap((row, y) =>
        [...row].map((cell, x) => (cell === "1" ? `M${x + QUIET} ${y + QUIET}h1v1h-1z` : "")),
      )
      .join(""),
  );
</script>

<svg viewBox="0 0 {size} {size}" role="img" aria-label={words} shape-rendering="crispEdges">
  <rect width={size} height={size} fill="#fff" />
  <path d={path} fill="#000" />
</svg>

<style>
  svg {
    width: min(16rem, 80vw);
    display: block;
  }
</style>
