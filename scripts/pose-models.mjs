/**
 * The body tracker's files, made from packages of the registry and put where the app serves them.
 *
 * The runtime wants a pose model as one bundle: a zip of the detector and the landmark model, each
 * with a description of its input picture inside. The packages have the bare models without that
 * description, so it is added here.
 */
import { createHash } from 'node:crypto';
import { copyFileSync, existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { crc32 } from 'node:zlib';
import { root } from './lib/setup.mjs';

const require = createRequire(import.meta.url);
const models = join(root, 'node_modules', '@mediapipe', 'pose');
const runtime = join(root, 'node_modules', '@mediapipe', 'tasks-vision', 'wasm');
const served = join(root, 'web', 'public', 'tracker');
const prepared = join(root, 'web', 'src', 'tracking', 'prepared');

/** How the input picture's levels, 0 to 255, become the numbers that a model was trained on. */
const DETECTOR_INPUT = { mean: 127.5, std: 127.5 };
const LANDMARK_INPUT = { mean: 0, std: 255 };

/** What the coach chooses between, and the model behind each. */
const MODELS = { quick: 'lite', standard: 'full', fine: 'heavy' };

/** Build and copy, unless this very build has been made already. */
function make() {
  const wanted = createHash('sha256')
    .update(readFileSync(fileURLToPath(import.meta.url)))
    .update(readFileSync(join(models, 'package.json')))
    .update(readFileSync(join(dirname(runtime), 'package.json')))
    .digest('hex');
  const stamp = join(served, 'made-from');
  const isMade = existsSync(stamp) && existsSync(join(prepared, 'vision.mjs'));
  if (isMade && readFileSync(stamp, 'utf8') === wanted) return;
  mkdirSync(served, { recursive: true });
  const detector = described(
    readFileSync(join(models, 'pose_solution_packed_assets.data')),
    DETECTOR_INPUT,
  );
  for (const [name, model] of Object.entries(MODELS)) {
    const landmarks = readFileSync(join(models, `pose_landmark_${model}.tflite`));
    const bundle = storedZip({
      'pose_detector.tflite': detector,
      'pose_landmarks_detector.tflite': described(landmarks, LANDMARK_INPUT),
    });
    writeFileSync(join(served, `${name}.task`), bundle);
  }
  // For workers that are modules, and for those that are plain scripts.
  for (const name of ['vision_wasm_module_internal', 'vision_wasm_internal']) {
    for (const kind of ['js', 'wasm']) {
      copyFileSync(join(runtime, `${name}.${kind}`), join(served, `${name}.${kind}`));
    }
  }
  prepareRuntime();
  writeFileSync(stamp, wanted);
}

/**
 * The runtime's own counting of what it is used for, sent to its maker's server every minute. It is
 * told that sending has failed before it begins, on which it stops by itself, and it has no address.
 * Beside that the script is made ready for the bundler.
 */
const CHANGES = [
  ['this.h=setInterval(()=>{this.flush()},6e4)', 'this.error=Error("Nothing is sent.")'],
  ['"https://odml.pa.googleapis.com/v1/log"', '"about:blank"'],
  // Loads the WebAssembly from where the app serves it, which the bundler cannot know.
  ['import(t.toString())', 'import(/* turbopackIgnore: true */ t.toString())'],
];

/** The runtime's script without it, put where the app imports it, with its types beside it. */
function prepareRuntime() {
  const from = dirname(runtime);
  let script = readFileSync(join(from, 'vision_bundle.mjs'), 'utf8');
  for (const [found, instead] of CHANGES) {
    if (script.split(found).length !== 2) {
      throw new Error(`The vision package is not as expected: it does not hold ${found} once.`);
    }
    script = script.replace(found, () => instead);
  }
  script = script.replace(/\/\/# sourceMappingURL=.*\s*$/, '');
  const foreign = script.match(/https?:\/\/[\w.-]+/g);
  if (foreign) throw new Error(`The vision package knows other addresses: ${foreign.join(', ')}`);
  mkdirSync(prepared, { recursive: true });
  writeFileSync(join(prepared, 'vision.mjs'), script);
  copyFileSync(join(from, 'vision.d.ts'), join(prepared, 'vision.d.mts'));
}

const ALIGNMENT = 64;
const aligned = (bytes) => Math.ceil(bytes / ALIGNMENT) * ALIGNMENT;

/** Fields of the table `Model` in the TFLite schema, version 3. */
const FIELDS = 8;
const VERSION = 0;
const BUFFERS = 4;
const METADATA = 6;

/**
 * A model with a description of its input added. The old bytes stay as they are: a new root table
 * is put before them that points into them, with one buffer and one metadata entry more.
 */
function described(model, input) {
  const old = tableAt(model, model.readUInt32LE(0));
  const oldBuffers = vectorAt(model, old.follow(BUFFERS));
  const oldMetadata = old.field(METADATA) ? vectorAt(model, old.follow(METADATA)) : [];
  const description = inputDescription(input);
  const name = Buffer.from('TFLITE_METADATA\0');

  // Where everything goes in the bytes put before the model.
  const vtable = 8;
  const table = vtable + 4 + 2 * FIELDS;
  const buffers = table + 4 + 4 * FIELDS;
  const metadata = buffers + 4 + 4 * (oldBuffers.length + 1);
  const entryVtable = metadata + 4 + 4 * (oldMetadata.length + 1);
  const entry = entryVtable + 8;
  const text = entry + 12;
  const bufferVtable = text + 4 + name.length;
  const buffer = bufferVtable + 8;
  const data = aligned(buffer + 8 + 4) - 4;
  const size = aligned(data + 4 + description.length);

  const head = Buffer.alloc(size);
  /** An offset from where it stands to what it points at. */
  const point = (at, to) => head.writeUInt32LE(to - at, at);
  head.writeUInt32LE(table, 0);
  head.write('TFL3', 4, 'latin1');
  writeTable(
    vtable,
    table,
    4 + 4 * FIELDS,
    Array.from({ length: FIELDS }, (_, i) => {
      const isThere = i === BUFFERS || i === METADATA || old.field(i) !== 0;
      return isThere ? 4 + 4 * i : 0;
    }),
  );
  for (let i = 0; i < FIELDS; i++) {
    const at = table + 4 + 4 * i;
    if (i === BUFFERS) point(at, buffers);
    else if (i === METADATA) point(at, metadata);
    else if (i === VERSION) head.writeUInt32LE(model.readUInt32LE(old.field(VERSION)), at);
    else if (old.field(i)) point(at, size + old.follow(i));
  }
  writeVector(buffers, [...oldBuffers.map((at) => size + at), buffer]);
  writeVector(metadata, [...oldMetadata.map((at) => size + at), entry]);

  writeTable(entryVtable, entry, 12, [4, 8]);
  point(entry + 4, text);
  head.writeUInt32LE(oldBuffers.length, entry + 8);
  head.writeUInt32LE(name.length - 1, text);
  name.copy(head, text + 4);

  writeTable(bufferVtable, buffer, 8, [4]);
  point(buffer + 4, data);
  head.writeUInt32LE(description.length, data);
  description.copy(head, data + 4);
  return Buffer.concat([head, model]);

  function writeTable(vtableAt, tableAtByte, bytes, fields) {
    head.writeUInt16LE(4 + 2 * fields.length, vtableAt);
    head.writeUInt16LE(bytes, vtableAt + 2);
    fields.forEach((offset, i) => head.writeUInt16LE(offset, vtableAt + 4 + 2 * i));
    head.writeInt32LE(tableAtByte - vtableAt, tableAtByte);
  }
  function writeVector(at, targets) {
    head.writeUInt32LE(targets.length, at);
    targets.forEach((to, i) => point(at + 4 + 4 * i, to));
  }
}

/** A flatbuffer's table: where its fields stand (0 when missing) and what they point at. */
function tableAt(bytes, at) {
  const vtable = at - bytes.readInt32LE(at);
  const size = bytes.readUInt16LE(vtable);
  const field = (i) => {
    const slot = 4 + 2 * i;
    const offset = slot < size ? bytes.readUInt16LE(vtable + slot) : 0;
    return offset === 0 ? 0 : at + offset;
  };
  return { field, follow: (i) => field(i) + bytes.readUInt32LE(field(i)) };
}

/** Where the tables of a vector of tables stand. */
function vectorAt(bytes, at) {
  return Array.from({ length: bytes.readUInt32LE(at) }, (_, i) => {
    const slot = at + 4 + 4 * i;
    return slot + bytes.readUInt32LE(slot);
  });
}

/** Numbers of the TFLite metadata schema: unions and enumerations. */
const IMAGE_PROPERTIES = 2;
const RGB = 1;
const NORMALIZATION = 1;

/** The TFLite metadata that says: the input is an RGB picture, scaled so. */
function inputDescription({ mean, std }) {
  const { Builder } = require('flatbuffers');
  const builder = new Builder(512);
  const table = (count, fill) => {
    builder.startObject(count);
    fill(builder);
    return builder.endObject();
  };
  const offsets = (items) => {
    builder.startVector(4, items.length, 4);
    for (const item of [...items].reverse()) builder.addOffset(item);
    return builder.endVector();
  };
  const numbers = (values) => {
    builder.startVector(4, values.length, 4);
    for (const value of [...values].reverse()) builder.addFloat32(value);
    return builder.endVector();
  };
  const name = builder.createString('image');
  const means = numbers([mean]);
  const deviations = numbers([std]);
  const normalization = table(2, (b) => {
    b.addFieldOffset(0, means, 0);
    b.addFieldOffset(1, deviations, 0);
  });
  const processing = table(2, (b) => {
    b.addFieldInt8(0, NORMALIZATION, 0);
    b.addFieldOffset(1, normalization, 0);
  });
  const properties = table(2, (b) => b.addFieldInt8(0, RGB, 0));
  const content = table(3, (b) => {
    b.addFieldInt8(0, IMAGE_PROPERTIES, 0);
    b.addFieldOffset(1, properties, 0);
  });
  const units = offsets([processing]);
  const tensor = table(7, (b) => {
    b.addFieldOffset(0, name, 0);
    b.addFieldOffset(3, content, 0);
    b.addFieldOffset(4, units, 0);
  });
  const inputs = offsets([tensor]);
  const subgraph = table(10, (b) => b.addFieldOffset(2, inputs, 0));
  const subgraphs = offsets([subgraph]);
  const metadata = table(8, (b) => b.addFieldOffset(3, subgraphs, 0));
  builder.finish(metadata, 'M001');
  return Buffer.from(builder.asUint8Array());
}

/** A zip of uncompressed files whose contents begin at multiples of 64, so that they can be mapped. */
function storedZip(files) {
  const parts = [];
  const directory = [];
  let at = 0;
  for (const [name, content] of Object.entries(files)) {
    const padding = aligned(at + 30 + name.length) - (at + 30 + name.length);
    const common = Buffer.alloc(26);
    common.writeUInt16LE(10, 0); // version needed
    common.writeUInt16LE(0x21, 8); // 1 January 1980: the same bundle every time
    common.writeUInt32LE(crc32(content), 10);
    common.writeUInt32LE(content.length, 14);
    common.writeUInt32LE(content.length, 18);
    common.writeUInt16LE(name.length, 22);
    const local = Buffer.from(common);
    local.writeUInt16LE(padding, 24);
    parts.push(Buffer.from('PK\x03\x04'), local, Buffer.from(name), Buffer.alloc(padding), content);
    const rest = Buffer.alloc(14);
    rest.writeUInt32LE(at, 10);
    directory.push(Buffer.from('PK\x01\x02\x0a\x00'), common, rest, Buffer.from(name));
    at += 30 + name.length + padding + content.length;
  }
  const listing = Buffer.concat(directory);
  const end = Buffer.alloc(18);
  const count = Object.keys(files).length;
  end.writeUInt16LE(count, 4);
  end.writeUInt16LE(count, 6);
  end.writeUInt32LE(listing.length, 8);
  end.writeUInt32LE(at, 12);
  return Buffer.concat([...parts, listing, Buffer.from('PK\x05\x06'), end]);
}

make();
