<script lang="ts">
  import Pages from "../../parts/shell/Pages.svelte";

  const { title }: { title: string } = $props();
  const PAGES = [
    { href: "/log", name: "Runs" },
    {
      href: "/money",
      name: "Money",
      under: [
        { href: "/money", name: "What sawing costs" },
        { href: "/money/all-round", name: "One band for many jobs" },
      ],
    },
    { href: "/rack/learned", name: "What edges taught" },
    { href: "/faults/book", name: "Trouble book" },
    { href: "/changes", name: "Changes" },
  ];
</script>

<Pages {title} label="Pages of the log" pages={PAGES} />
