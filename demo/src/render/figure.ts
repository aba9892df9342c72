/** A shaded, clothed figure hung on the joints of a pose: lofted trunk and limbs, head, hands, shoes. */
import * as THREE from 'three';
import type { Pose } from '@sinew/fighters/fighter/pose';
import { mix, subtract, type Point } from '@sinew/fighters/fighter/space';
import { BANDS, type BandName } from '@sinew/core/observe/band/band';
import { BAND_SECTIONS } from '@sinew/fighters/film/wornBands';
import { BandMesh } from './bandMesh';
import type { Look } from '@sinew/fighters/film/clips';

const SIDES = ['left', 'right'] as const;
const RING = 28;

const vector = ([x, y, z]: Point) => new THREE.Vector3(x, y, z);

/** One cross-section of a lofted part. */
interface Ring {
  readonly centre: THREE.Vector3;
  /** To the part's own right, and to its front; lengths are the half-width and the half-depth. */
  readonly right: THREE.Vector3;
  readonly front: THREE.Vector3;
}

/** A closed skin through rings that is laid anew for every frame. */
class Loft {
  readonly mesh: THREE.Mesh;
  private readonly positions: THREE.BufferAttribute;

  constructor(
    ringCount: number,
    material: THREE.Material,
    private readonly girth: number,
  ) {
    const geometry = new THREE.BufferGeometry();
    this.positions = new THREE.BufferAttribute(new Float32Array((ringCount + 2) * RING * 3), 3);
    geometry.setAttribute('position', this.positions);
    const index: number[] = [];
    for (let ring = 0; ring <= ringCount; ring++) {
      for (let k = 0; k < RING; k++) {
        const next = (k + 1) % RING;
        const [a, b] = [ring * RING + k, ring * RING + next];
        index.push(a, a + RING, b, b, a + RING, b + RING);
      }
    }
    geometry.setIndex(index);
    this.mesh = new THREE.Mesh(geometry, material);
    this.mesh.castShadow = true;
    this.mesh.receiveShadow = true;
    this.mesh.frustumCulled = false;
  }

  lay(rings: readonly Ring[]): void {
    const point = new THREE.Vector3();
    const put = (row: number, ring: Ring, share: number) => {
      for (let k = 0; k < RING; k++) {
        const angle = (2 * Math.PI * k) / RING;
        point
          .copy(ring.centre)
          .addScaledVector(ring.right, this.girth * share * Math.cos(angle))
          .addScaledVector(ring.front, this.girth * share * Math.sin(angle));
        this.positions.setXYZ(row * RING + k, point.x, point.y, point.z);
      }
    };
    put(0, rings[0]!, 0);
    rings.forEach((ring, i) => put(i + 1, ring, 1));
    put(rings.length + 1, rings[rings.length - 1]!, 0);
    this.positions.needsUpdate = true;
    this.mesh.geometry.computeVertexNormals();
  }
}

/** Rings along a straight piece; `profile` gives [share of the way, radius]. */
function along(from: Point, to: Point, profile: readonly (readonly [number, number])[]): Ring[] {
  const axis = vector(subtract(to, from)).normalize();
  const helper = Math.abs(axis.y) < 0.9 ? new THREE.Vector3(0, 1, 0) : new THREE.Vector3(1, 0, 0);
  const right = new THREE.Vector3().crossVectors(helper, axis).normalize();
  const front = new THREE.Vector3().crossVectors(axis, right);
  return profile.map(([share, radius]) => ({
    centre: vector(mix(from, to, share)),
    right: right.clone().multiplyScalar(radius),
    front: front.clone().multiplyScalar(radius),
  }));
}

const UPPER_ARM = [
  [-0.06, 0.03],
  [0.02, 0.058],
  [0.35, 0.052],
  [0.8, 0.041],
  [1.04, 0.038],
] as const;
const SLEEVE = [
  [-0.12, 0.045],
  [0, 0.073],
  [0.3, 0.068],
  [0.48, 0.066],
] as const;
const FOREARM = [
  [-0.05, 0.036],
  [0.2, 0.045],
  [0.6, 0.037],
  [1, 0.028],
] as const;
const THIGH = [
  [0, 0.085],
  [0.3, 0.083],
  [0.8, 0.06],
  [1.04, 0.052],
] as const;
const SHORTS = [
  [-0.08, 0.095],
  [0.1, 0.108],
  [0.45, 0.1],
  [0.62, 0.098],
] as const;
const SHANK = [
  [-0.04, 0.05],
  [0.25, 0.06],
  [0.6, 0.045],
  [1, 0.035],
] as const;
const SHOE = [
  [-0.12, 0.03],
  [0.05, 0.043],
  [0.5, 0.046],
  [0.85, 0.044],
  [1.05, 0.025],
] as const;
const FIST = [
  [-0.35, 0.03],
  [0.1, 0.043],
  [0.7, 0.05],
  [1.15, 0.046],
  [1.4, 0.02],
] as const;

export class Figure {
  readonly group = new THREE.Group();
  private readonly lofts = new Map<string, Loft>();
  private readonly head = new THREE.Group();
  private readonly buckle: THREE.Mesh;
  private readonly skin: THREE.Material;

  constructor(
    private readonly look: Look,
    private readonly height: number,
  ) {
    this.skin = this.cloth(look.skin, 0.65);
    this.buckle = new THREE.Mesh(new THREE.SphereGeometry(0.03, 16, 12), this.cloth(look.belt));
    this.buckle.castShadow = true;
    this.makeHead();
    this.group.add(this.head);
    if (!look.hasBands) this.group.add(this.buckle);
  }

  private cloth(color: string, roughness = 0.9): THREE.Material {
    return new THREE.MeshStandardMaterial({ color, roughness, side: THREE.DoubleSide });
  }

  private makeHead(): void {
    const h = this.height;
    const ball = (
      radius: number,
      scale: Point,
      at: Point,
      material: THREE.Material,
      part?: [number, number],
    ) => {
      const geometry = part
        ? new THREE.SphereGeometry(radius, 36, 24, 0, 2 * Math.PI, part[0], part[1])
        : new THREE.SphereGeometry(radius, 36, 24);
      const mesh = new THREE.Mesh(geometry, material);
      mesh.scale.set(...scale);
      mesh.position.set(...at);
      mesh.castShadow = true;
      this.head.add(mesh);
      return mesh;
    };
    const hair = this.cloth(this.look.hair, 0.95);
    const dark = this.cloth('#20160f', 0.5);
    const lip = this.cloth('#8c4a40', 0.7);
    const white = this.cloth('#efeae2', 0.4);
    ball(0.055 * h, [0.98, 1.18, 0.82], [0, 0.008 * h, 0], this.skin);
    ball(0.042 * h, [0.95, 0.9, 0.8], [0.012 * h, -0.036 * h, 0], this.skin);
    const cap = ball(0.0585 * h, [1, 1.18, 0.86], [-0.004 * h, 0.013 * h, 0], hair, [0, 1.35]);
    cap.rotation.z = 0.42;
    ball(0.0105 * h, [1.25, 1, 0.8], [0.058 * h, -0.003 * h, 0], this.skin);
    for (const z of [-1, 1]) {
      ball(0.0075 * h, [0.6, 0.7, 1.2], [0.05 * h, 0.012 * h, z * 0.018 * h], white);
      ball(0.0042 * h, [0.6, 1, 1], [0.0545 * h, 0.012 * h, z * 0.018 * h], dark);
      ball(0.0085 * h, [0.5, 0.25, 1.4], [0.052 * h, 0.024 * h, z * 0.018 * h], hair);
      ball(0.013 * h, [0.8, 1.3, 0.45], [-0.002 * h, 0.002 * h, z * 0.045 * h], this.skin);
    }
    ball(0.0095 * h, [0.5, 0.35, 1.5], [0.05 * h, -0.03 * h, 0], lip);
  }

  private loft(name: string, material: THREE.Material, rings: readonly Ring[]): void {
    let loft = this.lofts.get(name);
    if (!loft) {
      loft = new Loft(rings.length, material, this.look.girth ?? 1);
      this.lofts.set(name, loft);
      this.group.add(loft.mesh);
    }
    loft.lay(rings);
  }

  private readonly joints = new Map<string, THREE.Mesh>();

  /** A ball that rounds a bent joint. */
  private joint(name: string, at: Point, radius: number): void {
    let ball = this.joints.get(name);
    if (!ball) {
      ball = new THREE.Mesh(new THREE.SphereGeometry(radius, 20, 16), this.skin);
      ball.castShadow = true;
      this.joints.set(name, ball);
      this.group.add(ball);
    }
    ball.position.copy(vector(at));
  }

  private materials = new Map<string, THREE.Material>();

  private of(color: string): THREE.Material {
    const known = this.materials.get(color) ?? this.cloth(color);
    this.materials.set(color, known);
    return known;
  }

  /** Stand as `pose` says. */
  take(pose: Pose): void {
    this.trunk(pose);
    for (const side of SIDES) this.limbs(pose, side);
    this.head.position.copy(vector(pose.head));
  }

  private trunk(pose: Pose): void {
    const h = this.height;
    const up = new THREE.Vector3(0, 1, 0);
    const across = (left: Point, right: Point) => vector(subtract(right, left)).setY(0).normalize();
    const hips = across(pose.leftHip, pose.rightHip);
    const shoulders = across(pose.leftShoulder, pose.rightShoulder);
    const pelvis = vector(mix(pose.leftHip, pose.rightHip, 0.5));
    const chest = vector(mix(pose.leftShoulder, pose.rightShoulder, 0.5));
    const ring = (share: number, lift: number, width: number, depth: number): Ring => {
      const right = hips
        .clone()
        .lerp(shoulders, Math.min(1, Math.max(0, share)))
        .normalize();
      const front = new THREE.Vector3().crossVectors(up, right).normalize();
      const centre = pelvis.clone().lerp(chest, share).addScaledVector(up, lift);
      return {
        centre,
        right: right.multiplyScalar(width * h),
        front: front.multiplyScalar(depth * h),
      };
    };
    this.loft('shirt', this.of(this.look.shirt), [
      ring(0.12, 0, 0.1, 0.068),
      ring(0.3, 0, 0.092, 0.064),
      ring(0.55, 0, 0.104, 0.071),
      ring(0.8, 0, 0.118, 0.074),
      ring(0.95, 0, 0.118, 0.062),
      ring(1, 0.02 * h, 0.085, 0.045),
      ring(1, 0.034 * h, 0.042, 0.036),
    ]);
    this.loft('seat', this.of(this.look.shorts), [
      ring(0, -0.055 * h, 0.07, 0.055),
      ring(0, -0.02 * h, 0.104, 0.074),
      ring(0.08, 0, 0.104, 0.072),
      ring(0.16, 0, 0.099, 0.069),
    ]);
    if (this.look.hasBands) this.bands(pelvis, chest, hips, shoulders);
    else this.belt(ring);
    const neckFoot = mix(pose.leftShoulder, pose.rightShoulder, 0.5);
    this.loft(
      'neck',
      this.skin,
      along(neckFoot, pose.head, [
        [0, 0.05],
        [0.4, 0.052],
        [0.9, 0.05],
      ]),
    );
  }

  private belt(ring: (share: number, lift: number, width: number, depth: number) => Ring): void {
    this.loft('belt', this.of(this.look.belt), [
      ring(0.11, 0, 0.106, 0.075),
      ring(0.115, 0, 0.108, 0.077),
      ring(0.19, 0, 0.104, 0.074),
      ring(0.195, 0, 0.102, 0.072),
    ]);
    const knot = ring(0.155, 0, 0, 0.08);
    this.buckle.position.copy(knot.centre).add(knot.front);
  }

  private readonly worn = new Map<BandName, BandMesh>();

  /** One turns with the hips, one with the shoulders, as the ribs do that it is tied round. */
  private bands(
    pelvis: THREE.Vector3,
    chest: THREE.Vector3,
    hips: THREE.Vector3,
    shoulders: THREE.Vector3,
  ): void {
    const up = new THREE.Vector3(0, 1, 0);
    for (const band of BANDS) {
      let mesh = this.worn.get(band);
      if (!mesh) {
        mesh = new BandMesh(band, this.height);
        this.worn.set(band, mesh);
        this.group.add(mesh.mesh);
      }
      const right = band === 'hips' ? hips : shoulders;
      mesh.sit({
        centre: pelvis.clone().lerp(chest, BAND_SECTIONS[band].share),
        right,
        front: new THREE.Vector3().crossVectors(up, right).normalize(),
        up: chest.clone().sub(pelvis).normalize(),
      });
    }
  }

  private limbs(pose: Pose, side: (typeof SIDES)[number]): void {
    const at = (part: 'Shoulder' | 'Elbow' | 'Wrist' | 'Hip' | 'Knee' | 'Ankle' | 'Heel' | 'Toe') =>
      pose[`${side}${part}`];
    const fist = mix(pose[`${side}IndexKnuckle`], pose[`${side}LittleKnuckle`], 0.5);
    const piece = (
      name: string,
      material: THREE.Material,
      from: Point,
      to: Point,
      profile: readonly (readonly [number, number])[],
    ) => this.loft(side + name, material, along(from, to, profile));
    this.joint(side + 'ElbowCap', at('Elbow'), 0.039);
    this.joint(side + 'KneeCap', at('Knee'), 0.053);
    piece('UpperArm', this.skin, at('Shoulder'), at('Elbow'), UPPER_ARM);
    piece('Sleeve', this.of(this.look.shirt), at('Shoulder'), at('Elbow'), SLEEVE);
    piece('Forearm', this.skin, at('Elbow'), at('Wrist'), FOREARM);
    piece('Fist', this.of('#e6dfcf'), at('Wrist'), fist, FIST);
    piece('Thigh', this.skin, at('Hip'), at('Knee'), THIGH);
    piece('Shorts', this.of(this.look.shorts), at('Hip'), at('Knee'), SHORTS);
    piece('Shank', this.skin, at('Knee'), at('Ankle'), SHANK);
    const sole = (point: Point): Point => [point[0], point[1] + 0.028, point[2]];
    piece('Shoe', this.of('#d9d4c8'), sole(at('Heel')), sole(at('Toe')), SHOE);
    piece('Tongue', this.of('#d9d4c8'), at('Ankle'), sole(at('Toe')), [
      [-0.2, 0.045],
      [0.1, 0.05],
      [0.55, 0.04],
    ]);
  }
}
