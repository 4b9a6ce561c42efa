/**
 * Which yard this page is about: the shop's own, or the sample yard somebody looks round in. A cookie
 * tells the server; what is kept in the browser is kept apart.
 */
const COOKIE = "jade_yard";

export const looksRound = globalThis.document?.cookie.split("; ").includes(`${COOKIE}=sample`);

function open(yard: "sample" | ""): void {
  const age = yard ? "" : "; max-age=0";
  document.cookie = `${COOKIE}=${yard}; path=/; samesite=strict${age}`;
  // A page begun on one yard holds its records: it starts anew on the other.
  globalThis.location.hash = "#/";
  globalThis.location.reload();
}

export function lookRound(): void {
  open("sample");
}

export function backToShop(): void {
  open("");
}
