/** A band as a mesh, printed or of tape: a short piece of tube whose texture runs with the way round the body. */
import * as THREE from 'three';
import {
  BAND_HEIGHT,
  BAR,
  PRINTED,
  type BandKind,
  type BandName,
} from '@sinew/core/observe/band/band';
import { seeded } from '@sinew/core/foundation/uncertainty/random';
import { around, tapeOf } from '@sinew/fighters/film/wornBands';

const COLUMNS = 160;
const TEXELS = 4096;
const BLACK = '#1d1b18';
const WHITE = '#efece4';
/** No two rows are stuck on alike. */
const TAPED = { hips: 41, ribs: 42 } as const;

/** Where a band sits now: unit vectors to the wearer's right, to the front, and up along the trunk. */
export interface Seat {
  readonly centre: THREE.Vector3;
  readonly right: THREE.Vector3;
  readonly front: THREE.Vector3;
  readonly up: THREE.Vector3;
}

/** Its ends meet in front, so the triangle is at the back. */
export class BandMesh {
  readonly mesh: THREE.Mesh;
  private readonly positions: THREE.BufferAttribute;
  private readonly ring: ReturnType<typeof around>;

  constructor(band: BandName, height: number, kind: BandKind) {
    this.ring = around(band, height, COLUMNS);
    const girth = this.ring[COLUMNS]!.way;
    const geometry = new THREE.BufferGeometry();
    this.positions = new THREE.BufferAttribute(new Float32Array((COLUMNS + 1) * 2 * 3), 3);
    geometry.setAttribute('position', this.positions);
    const uv = this.ring.flatMap(({ way }) => [way / girth, 0, way / girth, 1]);
    geometry.setAttribute('uv', new THREE.BufferAttribute(new Float32Array(uv), 2));
    const index = this.ring.slice(1).flatMap((_, k) => {
      const at = 2 * k;
      return [at, at + 1, at + 2, at + 2, at + 1, at + 3];
    });
    geometry.setIndex(index);
    const material = new THREE.MeshStandardMaterial({
      map: barred(
        kind === 'tape' ? tapeOf(seeded(TAPED[band])) : { code: PRINTED[band], bar: BAR },
        girth,
      ),
      roughness: 0.9,
      side: THREE.DoubleSide,
    });
    this.mesh = new THREE.Mesh(geometry, material);
    this.mesh.castShadow = true;
    this.mesh.receiveShadow = true;
    this.mesh.frustumCulled = false;
  }

  sit({ centre, right, front, up }: Seat): void {
    const point = new THREE.Vector3();
    this.ring.forEach((one, k) => {
      for (const [row, side] of [-0.5, 0.5].entries()) {
        point
          .copy(centre)
          .addScaledVector(right, one.right)
          .addScaledVector(front, one.front)
          .addScaledVector(up, side * BAND_HEIGHT);
        this.positions.setXYZ(2 * k + row, point.x, point.y, point.z);
      }
    });
    this.positions.needsUpdate = true;
    this.mesh.geometry.computeVertexNormals();
  }
}

function barred(
  { code, bar }: { readonly code: string; readonly bar: number },
  girth: number,
): THREE.Texture {
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [TEXELS, 1];
  const sheet = canvas.getContext('2d')!;
  for (let x = 0; x < TEXELS; x++) {
    const share = (x + 0.5) / TEXELS;
    // The triangle is where the way round begins; past half of it the other end comes.
    const round = (share < 0.5 ? share : share - 1) * girth;
    const at = Math.floor(code.length / 2) + Math.floor(round / bar);
    sheet.fillStyle = code[at] === '1' ? WHITE : BLACK;
    sheet.fillRect(x, 0, 1, 1);
  }
  const texture = new THREE.CanvasTexture(canvas);
  texture.colorSpace = THREE.SRGBColorSpace;
  texture.anisotropy = 8;
  return texture;
}
