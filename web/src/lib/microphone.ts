/** One pluck from the microphone as a WAV file, without the browser's own sound shaping. */
import toWav from "audiobuffer-to-wav";

/** It stops this long after the pluck, or after so long without one. */
const RINGS_S = 1.6;
const MOST_S = 8;
const RISE = 4;
const LEAST_LEVEL = 0.004;

/** Hears when a pluck begins: a block much louder than the quietest so far. */
export class PluckWatch {
  #quiet = Infinity;
  #at: number | null = null;

  /** Takes the level of the block at a time (s); true once the pluck has rung long enough. */
  rung(level: number, at_s: number): boolean {
    if (this.#at === null && level > Math.max(RISE * this.#quiet, LEAST_LEVEL)) this.#at = at_s;
    this.#quiet = Math.min(this.#quiet, Math.max(level, 1e-5));
    return this.#at !== null && at_s - this.#at >= RINGS_S;
  }
}

/** Root of the mean square of some samples: how loud a block is, 0 to 1. */
export function level(block: Float32Array): number {
  if (block.length === 0) return 0;
  return Math.sqrt(block.reduce((sum, x) => sum + x * x, 0) / block.length);
}

const LOOK_MS = 50;
const BITS = 256_000;
const KINDS = ["audio/webm;codecs=pcm", "audio/webm;codecs=opus", "audio/mp4"];

/** Why there is no sound, as it is: the page, the person, the device or another program. */
export function whyNot(cause: unknown): string {
  if (!globalThis.isSecureContext) {
    return "This page came over plain HTTP, where browsers give no microphone: open it by its HTTPS address (Shop, Network).";
  }
  const name = cause instanceof DOMException ? cause.name : "";
  if (name === "NotAllowedError") {
    return "The microphone is not allowed for this page: allow it in the browser’s settings of this site.";
  }
  if (name === "NotFoundError") return "This device has no microphone, or none is plugged in.";
  if (name === "NotReadableError") return "Another program holds the microphone: close it.";
  return "This browser gives no microphone.";
}

async function microphone(): Promise<MediaStream> {
  try {
    return await navigator.mediaDevices.getUserMedia({
      audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false },
    });
  } catch (cause) {
    throw new Error(`${whyNot(cause)} Or choose a file.`, { cause });
  }
}

/** Waits for a pluck to ring out, telling the level as it goes. */
async function pluckRings(
  context: AudioContext,
  stream: MediaStream,
  onlevel: (level: number) => void,
): Promise<void> {
  const analyser = context.createAnalyser();
  context.createMediaStreamSource(stream).connect(analyser);
  const block = new Float32Array(analyser.fftSize);
  const watch = new PluckWatch();
  const start = performance.now();
  for (;;) {
    await new Promise((done) => setTimeout(done, LOOK_MS));
    analyser.getFloatTimeDomainData(block);
    const loud = level(block);
    onlevel(loud);
    const at = (performance.now() - start) / 1000;
    if (watch.rung(loud, at) || at >= MOST_S) return;
  }
}

/** What a recorder took, once it is stopped. */
function recording(recorder: MediaRecorder): { stop: () => Promise<Blob> } {
  const parts: Blob[] = [];
  recorder.ondataavailable = (event) => parts.push(event.data);
  recorder.start();
  return {
    stop: () =>
      new Promise((done) => {
        recorder.onstop = () => done(new Blob(parts, { type: recorder.mimeType }));
        recorder.stop();
      }),
  };
}

/** Tells the level for so long. */
async function listens(
  context: AudioContext,
  stream: MediaStream,
  seconds: number,
  onlevel: (level: number) => void,
): Promise<void> {
  const analyser = context.createAnalyser();
  context.createMediaStreamSource(stream).connect(analyser);
  const block = new Float32Array(analyser.fftSize);
  const until = performance.now() + 1000 * seconds;
  while (performance.now() < until) {
    await new Promise((done) => setTimeout(done, LOOK_MS));
    analyser.getFloatTimeDomainData(block);
    onlevel(level(block));
  }
}

type Until = (context: AudioContext, stream: MediaStream) => Promise<void>;

/** Records until something is heard or over; a refused microphone is thrown with what to do. */
async function recordUntil(over: Until): Promise<Blob> {
  const stream = await microphone();
  const context = new AudioContext();
  try {
    const mimeType = KINDS.find((kind) => MediaRecorder.isTypeSupported(kind)) ?? "";
    const taken = recording(new MediaRecorder(stream, { mimeType, audioBitsPerSecond: BITS }));
    await over(context, stream);
    const sound = await taken.stop();
    const buffer = await context.decodeAudioData(await sound.arrayBuffer());
    return new Blob([toWav(buffer)], { type: "audio/wav" });
  } finally {
    for (const track of stream.getTracks()) track.stop();
    await context.close();
  }
}

/** Records one pluck. */
export function record(onlevel: (level: number) => void): Promise<Blob> {
  return recordUntil((context, stream) => pluckRings(context, stream, onlevel));
}

/** Records a running saw for so many seconds. */
export function recordFor(seconds: number, onlevel: (level: number) => void): Promise<Blob> {
  return recordUntil((context, stream) => listens(context, stream, seconds, onlevel));
}
