<script lang="ts">
  import Pages from "../../parts/shell/Pages.svelte";

  const { title }: { title: string } = $props();
  const PAGES = [
    { href: "/rack", name: "Bands" },
    { href: "/rack/sharpening", name: "Sharpening" },
    { href: "/rack/shopping", name: "Shopping and spares" },
    { href: "/rack/made", name: "Made here" },
    { href: "/rack/types", name: "Types" },
    { href: "/rack/labels", name: "Labels" },
    { href: "/scan", name: "Scan" },
    { href: "/rack/learned", name: "Learned" },
    { href: "/money", name: "Money" },
    { href: "/money/all-round", name: "One for many jobs" },
    { href: "/rack/radius", name: "Radius card" },
  ];
</script>

<Pages {title} label="Pages of the rack" pages={PAGES} />
