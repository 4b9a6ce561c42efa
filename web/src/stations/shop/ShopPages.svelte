<script lang="ts">
  import Pages from "../../parts/shell/Pages.svelte";

  interface Props {
    title: string;
  }
  const { title }: Props = $props();
  const PAGES = [
    { href: "/shop", name: "Saws" },
    { href: "/shop/materials", name: "Materials" },
    {
      href: "/shop/rules",
      name: "House rules",
      under: [
        { href: "/shop/rules", name: "Rules" },
        { href: "/shop/prices", name: "Prices" },
        { href: "/shop/setting-up", name: "Setting up" },
      ],
    },
    {
      href: "/shop/about",
      name: "People and network",
      under: [
        { href: "/shop/about", name: "This shop" },
        { href: "/shop/network", name: "Network" },
      ],
    },
    {
      href: "/shop/keeping",
      name: "Files",
      under: [
        { href: "/shop/keeping", name: "Copies" },
        { href: "/shop/files", name: "Records" },
      ],
    },
  ];
</script>

<Pages {title} label="Pages of the shop" pages={PAGES} />
