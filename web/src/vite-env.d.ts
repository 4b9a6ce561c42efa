/// <reference types="vite-plugin-pwa/vanillajs" />

declare module "@fontsource-variable/*";
