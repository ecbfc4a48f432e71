// Runs on the audio thread: gathers blocks of samples, mixed down to mono, and sends them straight to the take worker.
export {};

declare class AudioWorkletProcessor {
  readonly port: MessagePort;
}
declare function registerProcessor(name: string, processor: new () => AudioWorkletProcessor): void;

const BLOCK = 512;

class Capture extends AudioWorkletProcessor {
  private sink: MessagePort | undefined;
  private block = new Float32Array(BLOCK);
  private filled = 0;

  constructor() {
    super();
    this.port.onmessage = (event: MessageEvent<MessagePort>) => (this.sink = event.data);
  }

  process(inputs: Float32Array[][]): boolean {
    const channels = inputs[0];
    if (!channels?.length) return true;
    for (let i = 0; i < channels[0].length; i++) {
      let sum = 0;
      for (const channel of channels) sum += channel[i];
      this.block[this.filled++] = sum / channels.length;
      if (this.filled < BLOCK) continue;
      this.sink?.postMessage(this.block, [this.block.buffer]);
      this.block = new Float32Array(BLOCK);
      this.filled = 0;
    }
    return true;
  }
}

registerProcessor('wendel-capture', Capture);
