/** Hands on what a microphone gives, a tenth of a second at a time: on the sound's own thread, where nothing is lost. */
const PIECE = 0.1;

class Hear extends AudioWorkletProcessor {
  samples = new Float32Array(Math.round(PIECE * sampleRate));
  count = 0;

  process([[input] = []]) {
    // A camera that has only just begun gives no channel; silence keeps the clock.
    const block = input ?? new Float32Array(128);
    for (const sample of block) {
      this.samples[this.count++] = sample;
      if (this.count < this.samples.length) continue;
      this.port.postMessage({
        samples: this.samples,
        end: currentTime + block.length / sampleRate,
      });
      this.samples = new Float32Array(this.samples.length);
      this.count = 0;
    }
    return true;
  }
}

registerProcessor('hear', Hear);
