declare module "audiobuffer-to-wav" {
  /** 16-bit WAV of a buffer; 32-bit float when asked. */
  export default function toWav(buffer: AudioBuffer, options?: { float32?: boolean }): ArrayBuffer;
}
