/** Codes read from a camera's picture: by the browser where it can, else by a library of our own. */
import { prepareZXingModule, readBarcodes } from "zxing-wasm/reader";
import wasm from "zxing-wasm/reader/zxing_reader.wasm?url";

interface Detector {
  detect(source: ImageBitmapSource): Promise<{ rawValue: string }[]>;
}
declare const BarcodeDetector:
  | { new (options: { formats: string[] }): Detector; getSupportedFormats(): Promise<string[]> }
  | undefined;

let own: Detector | null | undefined;

async function detector(): Promise<Detector | null> {
  if (own === undefined) {
    own = null;
    if (typeof BarcodeDetector !== "undefined") {
      const formats = await BarcodeDetector.getSupportedFormats().catch((): string[] => []);
      if (formats.includes("qr_code")) own = new BarcodeDetector({ formats: ["qr_code"] });
    }
    // Nothing is fetched from elsewhere: the reader ships with the application.
    if (own === null) prepareZXingModule({ overrides: { locateFile: () => wasm } });
  }
  return own;
}

/** The first code in a picture; null without one. */
export async function codeIn(canvas: HTMLCanvasElement): Promise<string | null> {
  const found = await detector();
  if (found) return (await found.detect(canvas))[0]?.rawValue ?? null;
  const pixels = canvas.getContext("2d")?.getImageData(0, 0, canvas.width, canvas.height);
  if (!pixels) return null;
  const codes = await readBarcodes(pixels, { formats: ["QRCode"], maxNumberOfSymbols: 1 });
  return codes[0]?.text ?? null;
}

/** The band whose page a label's code opens, whatever address it was printed with. */
export function bandOf(code: string): number | null {
  const match = /#\/rack\/(\d{1,12})$/.exec(code);
  return match ? Number(match[1]) : null;
}
