// Asks the first questions while the application itself is still on its way; src/api/early.ts takes
// the answers. Where the application was there first, it has asked them itself.
if (!window.jadeEarly) {
  window.jadeEarly = new Map();
  for (const path of ["/api/door", "/api/shop", "/api/reference", "/api/saws"]) {
    const headers = { Quantities: "open" };
    if (document.cookie.includes("jade_yard=sample")) headers["Jade-Yard"] = "sample";
    window.jadeEarly.set(
      path,
      fetch(path, { headers }).catch(() => null),
    );
  }
}
