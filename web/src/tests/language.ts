// Days and times are said in the reader's language: in tests an English one. First of all imports.
Object.defineProperty(navigator, "languages", { value: ["en-GB"], configurable: true });

export {};
