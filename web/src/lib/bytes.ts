/** What is sent as it is, and not as JSON: a file, a recording, a CSV. */
export function asBytes(
  content: Blob | ArrayBuffer | string,
  type = "application/octet-stream",
): { body: string; bodySerializer: (body: unknown) => BodyInit; headers: Record<string, string> } {
  return {
    body: content as unknown as string,
    bodySerializer: (body) => body as BodyInit,
    headers: { "Content-Type": type },
  };
}
