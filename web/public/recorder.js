/** Hands every block of microphone samples to the page. Loaded as an audio worklet. */
class Recorder extends AudioWorkletProcessor {
  process(inputs) {
    const channel = inputs[0]?.[0];
    if (channel) this.port.postMessage(channel.slice());
    return true;
  }
}
registerProcessor("recorder", Recorder);
