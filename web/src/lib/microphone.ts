/** Two seconds from the microphone as a WAV file, without the browser's own sound shaping. */
import toWav from "audiobuffer-to-wav";

export const RECORD_S = 2.5;

/** Joins blocks of samples end to end. */
export function joined(blocks: readonly Float32Array[]): Float32Array<ArrayBuffer> {
  const all = new Float32Array(blocks.reduce((n, b) => n + b.length, 0));
  let at = 0;
  for (const block of blocks) {
    all.set(block, at);
    at += block.length;
  }
  return all;
}

/** Root of the mean square of some samples: how loud a block is, 0 to 1. */
export function level(block: Float32Array): number {
  if (block.length === 0) return 0;
  return Math.sqrt(block.reduce((sum, x) => sum + x * x, 0) / block.length);
}

/** Records, telling the level as it goes; a refused microphone is thrown with what to do. */
export async function record(onlevel: (level: number) => void): Promise<Blob> {
  const stream = await navigator.mediaDevices
    .getUserMedia({
      audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false },
    })
    .catch((cause: unknown) => {
      throw new Error("The microphone was not given: allow it for this page, or choose a file.", {
        cause,
      });
    });
  const context = new AudioContext();
  try {
    await context.audioWorklet.addModule("/recorder.js");
    const blocks: Float32Array[] = [];
    const node = new AudioWorkletNode(context, "recorder");
    node.port.onmessage = (event: MessageEvent<Float32Array>) => {
      blocks.push(event.data);
      onlevel(level(event.data));
    };
    context.createMediaStreamSource(stream).connect(node);
    await new Promise((done) => setTimeout(done, RECORD_S * 1000));
    node.disconnect();
    const samples = joined(blocks);
    const buffer = context.createBuffer(1, Math.max(samples.length, 1), context.sampleRate);
    buffer.copyToChannel(samples, 0);
    return new Blob([toWav(buffer)], { type: "audio/wav" });
  } finally {
    for (const track of stream.getTracks()) track.stop();
    await context.close();
  }
}
