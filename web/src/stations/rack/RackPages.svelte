<script lang="ts">
  import Pages from "../../parts/shell/Pages.svelte";

  const { title }: { title: string } = $props();
  const PAGES = [
    { href: "/rack", name: "Bands" },
    {
      href: "/rack/sharpening",
      name: "To do",
      under: [
        { href: "/rack/sharpening", name: "Sharpening" },
        { href: "/rack/shopping", name: "Shopping and spares" },
      ],
    },
    { href: "/rack/types", name: "Types" },
    {
      href: "/rack/labels",
      name: "Tools",
      under: [
        { href: "/rack/labels", name: "Labels" },
        { href: "/scan", name: "Scan" },
        { href: "/rack/radius", name: "Radius card" },
        { href: "/rack/made", name: "Made here" },
      ],
    },
  ];
</script>

<Pages {title} label="Pages of the rack" pages={PAGES} />
