<script lang="ts">
  import Pages from "../../parts/shell/Pages.svelte";

  const { title }: { title: string } = $props();
  const PAGES = [
    { href: "/faults", name: "Find a cause" },
    {
      href: "/faults/signs",
      name: "Tools",
      under: [
        { href: "/faults/signs", name: "Signs side by side" },
        { href: "/faults/ear", name: "The ear" },
        { href: "/faults/cards", name: "Cards for the wall" },
        { href: "/faults/kit", name: "What we check with" },
      ],
    },
  ];
</script>

<Pages {title} label="Pages of Faults" pages={PAGES} />
