/** Smooth skins for a figure: a closed surface through rings, and rings along limbs that bend at their joints. */
import * as THREE from 'three';

/** One cross-section: an ellipse, or squarer. */
export interface Ring {
  readonly centre: THREE.Vector3;
  /** To the part's own right, and to its front; lengths are the half-width and the half-depth. */
  readonly right: THREE.Vector3;
  readonly front: THREE.Vector3;
}

/**
 * How much farther out the surface lies, as a share.
 *
 * @param angle radians round the part, from its right toward its front
 * @param share of the way from the first ring to the last
 */
export type Relief = (angle: number, share: number) => number;

const COLUMNS = 24;

export interface Cut {
  /** Rows laid between two rings. */
  readonly fine?: number;
  readonly relief?: Relief;
  /** Of the superellipse: 2 is an ellipse, more is squarer. */
  readonly square?: number;
  /** Times that the texture is laid round the part, and along it. */
  readonly tiles?: readonly [number, number];
  /** Factor on all radii. */
  readonly girth?: number;
}

/** A closed skin through rings that is laid anew for every frame. */
export class Skin {
  readonly mesh: THREE.Mesh;
  private readonly positions: THREE.BufferAttribute;
  private readonly rows: number;
  private readonly fine: number;
  private readonly outline: readonly (readonly [number, number, number])[];

  constructor(
    ringCount: number,
    material: THREE.Material,
    private readonly cut: Cut = {},
  ) {
    this.fine = cut.fine ?? 3;
    this.rows = (ringCount - 1) * this.fine + 3;
    const power = 2 / (cut.square ?? 2);
    const bulge = (value: number) => Math.sign(value) * Math.abs(value) ** power;
    this.outline = Array.from({ length: COLUMNS + 1 }, (_, k) => {
      const angle = (2 * Math.PI * (k % COLUMNS)) / COLUMNS;
      return [angle, bulge(Math.cos(angle)), bulge(Math.sin(angle))] as const;
    });
    const width = COLUMNS + 1;
    const geometry = new THREE.BufferGeometry();
    this.positions = new THREE.BufferAttribute(new Float32Array(this.rows * width * 3), 3);
    geometry.setAttribute('position', this.positions);
    const [around, along] = cut.tiles ?? [1, 1];
    const uv = Array.from({ length: this.rows }, (_, row) =>
      this.outline.flatMap((__, k) => [(around * k) / COLUMNS, (along * row) / (this.rows - 1)]),
    ).flat();
    geometry.setAttribute('uv', new THREE.BufferAttribute(new Float32Array(uv), 2));
    this.mesh = new THREE.Mesh(geometry, material);
    this.mesh.castShadow = true;
    this.mesh.receiveShadow = true;
    this.mesh.frustumCulled = false;
  }

  lay(rings: readonly Ring[]): void {
    if (!this.mesh.geometry.index) this.mesh.geometry.setIndex(this.faces(rings));
    const last = this.rows - 3;
    for (let row = 0; row <= last; row++) {
      const ring = ringAt(rings, row / this.fine);
      this.put(row + 1, ring, row / last, 1);
      if (row === 0) this.put(0, ring, 0, 0);
      if (row === last) this.put(this.rows - 1, ring, 1, 0);
    }
    this.positions.needsUpdate = true;
    this.mesh.geometry.computeVertexNormals();
    this.closeSeam();
  }

  /** Triangles whose corners run such that they look outward. */
  private faces(rings: readonly Ring[]): number[] {
    const width = COLUMNS + 1;
    const [first, last] = [rings[0]!, rings.at(-1)!];
    const { right, front } = rings[Math.floor(rings.length / 2)]!;
    const way = last.centre.clone().sub(first.centre);
    const [next, beside] = right.clone().cross(front).dot(way) > 0 ? [1, width] : [width, 1];
    return Array.from({ length: (this.rows - 1) * COLUMNS }, (_, i) => {
      const a = Math.floor(i / COLUMNS) * width + (i % COLUMNS);
      return [a, a + next, a + beside, a + beside, a + next, a + width + 1];
    }).flat();
  }

  private put(row: number, ring: Ring, share: number, size: 0 | 1): void {
    const { relief, girth = 1 } = this.cut;
    const point = new THREE.Vector3();
    this.outline.forEach(([angle, cos, sin], k) => {
      const out = size * girth * (1 + (relief?.(angle, share) ?? 0));
      point
        .copy(ring.centre)
        .addScaledVector(ring.right, out * cos)
        .addScaledVector(ring.front, out * sin);
      this.positions.setXYZ(row * (COLUMNS + 1) + k, point.x, point.y, point.z);
    });
  }

  /** The first and the last column lie on each other, and are lit alike. */
  private closeSeam(): void {
    const normals = this.mesh.geometry.getAttribute('normal');
    const [a, b] = [new THREE.Vector3(), new THREE.Vector3()];
    for (let row = 0; row < this.rows; row++) {
      const [first, last] = [row * (COLUMNS + 1), row * (COLUMNS + 1) + COLUMNS];
      a.fromBufferAttribute(normals, first).add(b.fromBufferAttribute(normals, last)).normalize();
      normals.setXYZ(first, a.x, a.y, a.z);
      normals.setXYZ(last, a.x, a.y, a.z);
    }
  }
}

/** Between rings as Catmull and Rom's spline goes. */
function ringAt(rings: readonly Ring[], at: number): Ring {
  const i = Math.min(rings.length - 2, Math.floor(at));
  const u = at - i;
  const [b, c] = [rings[i]!, rings[i + 1]!];
  const [a, d] = [rings[i - 1] ?? b, rings[i + 2] ?? c];
  const [u2, u3] = [u * u, u * u * u];
  const weights = [
    (-u3 + 2 * u2 - u) / 2,
    (3 * u3 - 5 * u2 + 2) / 2,
    (-3 * u3 + 4 * u2 + u) / 2,
    (u3 - u2) / 2,
  ];
  const mixed = (of: keyof Ring) =>
    [a, b, c, d].reduce(
      (sum, ring, k) => sum.addScaledVector(ring[of], weights[k]!),
      new THREE.Vector3(),
    );
  return { centre: mixed('centre'), right: mixed('right'), front: mixed('front') };
}

/** One cross-section of a limb: where, in links from its first joint on; half-width; half-depth; how far to the front. */
export type Section = readonly [number, number, number?, number?];

/** Links over which a limb rounds a joint, on either side of it. */
const ROUND = 0.2;

/**
 * Rings along a limb that bends at its joints.
 *
 * @param joints two at least
 * @param front which way the limb's own front looks at its first joint, roughly
 */
export function limbRings(
  joints: readonly THREE.Vector3[],
  sections: readonly Section[],
  front: THREE.Vector3,
): Ring[] {
  const step = 0.02;
  const ahead = front.clone();
  return sections.map(([at, width, depth = width, lift = 0]) => {
    const centre = along(joints, at);
    const way = along(joints, at + step)
      .sub(along(joints, at - step))
      .normalize();
    // Carried on from ring to ring without a twist of its own.
    ahead.addScaledVector(way, -ahead.dot(way)).normalize();
    const right = new THREE.Vector3().crossVectors(ahead, way);
    return {
      centre: centre.addScaledVector(ahead, lift),
      right: right.multiplyScalar(width),
      front: ahead.clone().multiplyScalar(depth),
    };
  });
}

/** A place on the way through joints, each rounded by a parabola that still goes through it. */
function along(joints: readonly THREE.Vector3[], at: number): THREE.Vector3 {
  const near = Math.round(at);
  const off = at - near;
  if (near <= 0 || near >= joints.length - 1 || Math.abs(off) >= ROUND) return straight(joints, at);
  const [from, to] = [straight(joints, near - ROUND), straight(joints, near + ROUND)];
  const middle = from.clone().add(to).multiplyScalar(-0.5).addScaledVector(joints[near]!, 2);
  const u = (off + ROUND) / (2 * ROUND);
  return from
    .multiplyScalar((1 - u) ** 2)
    .addScaledVector(middle, 2 * u * (1 - u))
    .addScaledVector(to, u * u);
}

function straight(joints: readonly THREE.Vector3[], at: number): THREE.Vector3 {
  const i = Math.min(joints.length - 2, Math.max(0, Math.floor(at)));
  return joints[i]!.clone().lerp(joints[i + 1]!, at - i);
}
