/** What is read from a film's tables, and what becomes of films that were damaged on the way. */
import {
  ALL_FORMATS,
  BufferSource,
  BufferTarget,
  EncodedPacketSink,
  EncodedVideoPacketSource,
  Input,
  Mp4OutputFormat,
  Output,
} from 'mediabunny';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { inspectFilm, UnusableFilm, type Film } from '@/video/inspect';
import { film } from './support';

const good = film('lead-hook-slap.mp4');
const inspect = (bytes: Uint8Array) =>
  inspectFilm({
    source: new BufferSource(Uint8Array.from(bytes)),
    read: async (from, to) => bytes.slice(from, to),
    size: bytes.length,
  });

/** The film's description, or the coach's message; anything else fails the test. */
async function outcome(bytes: Uint8Array): Promise<Film | string> {
  try {
    return await inspect(bytes);
  } catch (error) {
    expect(error).toBeInstanceOf(UnusableFilm);
    return (error as UnusableFilm).message;
  }
}

describe('a film', () => {
  it('is described by its tables', async () => {
    const { width, height, codec, mimeType, frameTimes } = await inspect(good);
    expect({ width, height, codec }).toEqual({ width: 1280, height: 720, codec: 'avc' });
    expect(mimeType).toMatch(/^video\/mp4/);
    expect(frameTimes).toHaveLength(284);
    // B-frames are stored out of order; their times are not.
    frameTimes.forEach((time, i) => expect(time).toBeCloseTo(frameTimes[0]! + i / 240, 6));
  });

  it('that claims billions of frames in one byte is refused at once', async () => {
    const runs = good.indexOf('ctts') + 12;
    const bytes = Uint8Array.from(good);
    bytes[runs] = 0xe1;
    await expect(inspect(bytes)).rejects.toThrow('its tables make no sense');
    const sizes = good.indexOf('stsz') + 12;
    bytes[runs] = 0;
    bytes[sizes] = 0x7f;
    await expect(inspect(bytes)).rejects.toThrow('its tables make no sense');
  });

  it('cut at any place says how much is there, or that it is no film; never that all is well', async () => {
    await fc.assert(
      fc.asyncProperty(fc.integer({ min: 0, max: good.length - 1 }), async (length) => {
        const said = await outcome(good.subarray(0, length));
        expect(typeof said).toBe('string');
        const frames = /only the first (\d+)/.exec(said as string);
        if (frames) expect(Number(frames[1])).toBeLessThan(284);
      }),
      { numRuns: 60, seed: 5 },
    );
  });

  it('with bytes changed in its tables is described or refused, and never crashes the reader', async () => {
    const change = fc.record({
      at: fc.integer({ min: 0, max: 6000 }),
      byte: fc.integer({ min: 0, max: 255 }),
    });
    await fc.assert(
      fc.asyncProperty(fc.array(change, { minLength: 1, maxLength: 6 }), async (changes) => {
        const bytes = Uint8Array.from(good);
        for (const { at, byte } of changes) bytes[at] = byte;
        const found = await outcome(bytes);
        if (typeof found === 'string') expect(found).toMatch(/\.$/);
        else found.frameTimes.forEach((time) => expect(Number.isFinite(time)).toBe(true));
      }),
      { numRuns: 80, seed: 5 },
    );
  });
});

describe('a slow-motion file that says how fast it was shot', () => {
  /** Three seconds at 30 a second, with the note that phones leave. */
  async function noted(value: string | Uint8Array): Promise<number | null> {
    const target = new BufferTarget();
    const output = new Output({ format: new Mp4OutputFormat({ metadataFormat: 'mdta' }), target });
    output.setMetadataTags({ raw: { 'com.android.capture.fps': value } });
    const input = new Input({
      source: new BufferSource(Uint8Array.from(good)),
      formats: ALL_FORMATS,
    });
    const track = (await input.getPrimaryVideoTrack())!;
    const source = new EncodedVideoPacketSource('avc');
    output.addVideoTrack(source);
    await output.start();
    const decoderConfig = (await track.getDecoderConfig())!;
    const sink = new EncodedPacketSink(track);
    for await (const packet of sink.packets()) {
      const slow = { timestamp: packet.timestamp * 8, duration: packet.duration * 8 };
      await source.add(packet.clone(slow), { decoderConfig });
    }
    await output.finalize();
    return (await inspect(new Uint8Array(target.buffer!))).shotAt;
  }

  it('is believed, as text', async () => {
    expect(await noted('240')).toBe(240);
    expect(await noted('239.7602')).toBe(239.76);
  });

  it('is not believed when it says nothing, or that it was shot slower than it plays', async () => {
    for (const value of ['soon', '30', '-240', '1e9']) expect(await noted(value)).toBeNull();
  });

  it('says nothing in a film that plays at true speed', async () => {
    expect((await inspect(good)).shotAt).toBeNull();
  });
});
