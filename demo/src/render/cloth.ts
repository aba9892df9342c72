/** What skins are made of: skin, woven and knitted cloth, leather, each with its own grain; and how cloth folds. */
import * as THREE from 'three';
import { seeded } from '@sinew/core/foundation/uncertainty/random';
import type { Relief } from './skin';

export type Stuff = 'skin' | 'knit' | 'weave' | 'leather' | 'hair' | 'wrap';

/** How rough each is, and how deep its grain. */
const STUFFS: Readonly<Record<Stuff, { readonly rough: number; readonly grain: number }>> = {
  skin: { rough: 0.6, grain: 0.06 },
  knit: { rough: 0.95, grain: 1.2 },
  weave: { rough: 0.85, grain: 0.9 },
  leather: { rough: 0.5, grain: 0.15 },
  hair: { rough: 0.8, grain: 2 },
  wrap: { rough: 0.95, grain: 0.8 },
};

const TEXELS = 256;

/** Light and dark of a stuff at a texel, 0 to 1 around a half. */
function shade(stuff: Stuff, x: number, y: number, random: () => number): number {
  const speckle = random() - 0.5;
  if (stuff === 'weave')
    return 0.5 + 0.22 * Math.sin(x * 1.57) * Math.sin(y * 1.57) + 0.2 * speckle;
  if (stuff === 'knit') return 0.5 + 0.25 * Math.sin(x * 0.785 + Math.sin(y * 0.4)) + 0.2 * speckle;
  if (stuff === 'hair')
    return 0.5 + 0.35 * Math.sin(x * 0.9 + 2 * Math.sin(y * 0.05)) + 0.3 * speckle;
  if (stuff === 'wrap') return 0.5 + 0.4 * Math.sign(Math.sin(y * 0.2 + x * 0.06)) + 0.15 * speckle;
  return 0.5 + 0.35 * speckle;
}

const grains = new Map<Stuff, readonly [THREE.Texture, THREE.Texture]>();

/** A stuff's grain as relief, and as light and dark. */
function grainOf(stuff: Stuff): readonly [THREE.Texture, THREE.Texture] {
  const known = grains.get(stuff);
  if (known) return known;
  const random = seeded(7);
  const values = Array.from({ length: TEXELS * TEXELS }, (_, i) =>
    shade(stuff, i % TEXELS, Math.floor(i / TEXELS), random),
  );
  const [relief, tint] = [
    (value: number) => 255 * value,
    (value: number) => 232 + 40 * (value - 0.5),
  ].map((level) => {
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [TEXELS, TEXELS];
    const sheet = canvas.getContext('2d')!;
    const picture = sheet.createImageData(TEXELS, TEXELS);
    values.forEach((value, i) => {
      picture.data.fill(level(value), 4 * i, 4 * i + 3);
      picture.data[4 * i + 3] = 255;
    });
    sheet.putImageData(picture, 0, 0);
    const texture = new THREE.CanvasTexture(canvas);
    texture.wrapS = THREE.RepeatWrapping;
    texture.wrapT = THREE.RepeatWrapping;
    texture.anisotropy = 4;
    return texture;
  });
  const found = [relief!, tint!] as const;
  grains.set(stuff, found);
  return found;
}

export function made(color: string, stuff: Stuff): THREE.Material {
  const [relief, map] = grainOf(stuff);
  const { rough, grain } = STUFFS[stuff];
  return new THREE.MeshStandardMaterial({
    color,
    map,
    roughness: rough,
    bumpMap: relief,
    bumpScale: grain,
  });
}

/**
 * Folds that run slantwise round a part, deeper toward its hem: a few waves, each piece of cloth with its own.
 *
 * @param depth of the deepest, as a share of the part's radius
 */
export function folds(seed: number, depth: number): Relief {
  const random = seeded(seed);
  const waves = Array.from({ length: 5 }, (_, i) => ({
    round: 2 + i + Math.floor(3 * random()),
    along: (random() - 0.5) * 22,
    phase: 2 * Math.PI * random(),
    size: 1 / (1 + 0.5 * i),
  }));
  const whole = waves.reduce((sum, { size }) => sum + size, 0);
  return (angle, share) =>
    (depth *
      (0.35 + 0.65 * share) *
      waves.reduce((sum, wave) => sum + waveAt(wave, angle, share), 0)) /
    whole;
}

interface Wave {
  readonly round: number;
  readonly along: number;
  readonly phase: number;
  readonly size: number;
}

/** Cloth hangs in round valleys and sharp ridges. */
function waveAt({ round, along, phase, size }: Wave, angle: number, share: number): number {
  const bare = Math.sin(round * angle + along * share + phase);
  return size * (Math.abs(bare) * 1.6 - 1);
}
