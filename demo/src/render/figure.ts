/** A figure hung on the joints of a pose: smooth skins for body and limbs, clothes that fold, hands, shoes. */
import * as THREE from 'three';
import type { Pose } from '@sinew/fighters/fighter/pose';
import { mix, type Point } from '@sinew/fighters/fighter/space';
import { BANDS, type BandKind, type BandName } from '@sinew/core/observe/band/band';
import { BAND_SECTIONS } from '@sinew/fighters/film/wornBands';
import type { Look } from '@sinew/fighters/film/clips';
import { BandMesh } from './bandMesh';
import { folds, made, type Stuff } from './cloth';
import { headOf } from './head';
import { limbRings, Skin, type Cut, type Ring, type Section } from './skin';

const SIDES = ['left', 'right'] as const;
type Side = (typeof SIDES)[number];

const vector = ([x, y, z]: Point) => new THREE.Vector3(x, y, z);
const UP = new THREE.Vector3(0, 1, 0);

/** Metres, of a body of any height: joints count from the limb's first one. */
const ARM: readonly Section[] = [
  [0.32, 0.05],
  [0.45, 0.053, 0.055],
  [0.65, 0.045, 0.047],
  [0.92, 0.038, 0.04],
  [1.06, 0.04, 0.039],
  [1.24, 0.044, 0.042],
  [1.6, 0.036, 0.034],
  [1.9, 0.029, 0.025],
  [2.03, 0.028, 0.024],
];
/** From beside the neck over the shoulder to the middle of the upper arm. */
const SLEEVE: readonly Section[] = [
  [0.05, 0.02],
  [0.3, 0.04, 0.045],
  [0.6, 0.054, 0.058],
  [0.86, 0.065, 0.065],
  [1.06, 0.07, 0.068],
  [1.25, 0.069, 0.068],
  [1.52, 0.069, 0.068],
];
const LEG: readonly Section[] = [
  [0.34, 0.07, 0.075, 0.006],
  [0.46, 0.078, 0.084, 0.006],
  [0.65, 0.066, 0.072, 0.006],
  [0.92, 0.053, 0.055, 0.002],
  [1.05, 0.05, 0.052],
  [1.25, 0.055, 0.058, -0.012],
  [1.5, 0.049, 0.05, -0.012],
  [1.8, 0.036, 0.037, -0.004],
  [2.02, 0.035, 0.036],
];
/** From the middle of the seat over the hip to a hand above the knee. */
const SHORTS: readonly Section[] = [
  [0.15, 0.02, 0.05],
  [0.6, 0.034, 0.08],
  [0.95, 0.062, 0.096],
  [1.15, 0.09, 0.103],
  [1.38, 0.101, 0.104],
  [1.66, 0.104, 0.105],
];
const SHOE: readonly Section[] = [
  [-0.14, 0.02, 0.02],
  [-0.08, 0.032, 0.034, 0.004],
  [0.08, 0.037, 0.042, 0.01],
  [0.35, 0.038, 0.044, 0.012],
  [0.7, 0.046, 0.033],
  [0.95, 0.042, 0.026, -0.005],
  [1.1, 0.024, 0.016, -0.01],
];
const COLLAR: readonly Section[] = [
  [-0.25, 0.045, 0.047],
  [0.05, 0.046, 0.049],
  [0.4, 0.04, 0.046],
];
const HANDS: Readonly<Record<NonNullable<Look['hands']>, readonly Section[]>> = {
  bare: [
    [-0.3, 0.027, 0.024],
    [0.1, 0.036, 0.028],
    [0.7, 0.043, 0.034],
    [1.1, 0.041, 0.036],
    [1.34, 0.026, 0.024],
  ],
  wraps: [
    [-0.75, 0.032, 0.028],
    [-0.1, 0.034, 0.03],
    [0.4, 0.042, 0.036],
    [0.8, 0.047, 0.041],
    [1.12, 0.044, 0.041],
    [1.36, 0.027, 0.026],
  ],
  gloves: [
    [-1.05, 0.042, 0.041],
    [-0.4, 0.044, 0.043],
    [0.1, 0.051, 0.049],
    [0.6, 0.062, 0.058],
    [1.05, 0.062, 0.062],
    [1.4, 0.046, 0.05],
    [1.55, 0.024, 0.028],
  ],
};
const THUMB = { bare: 0.013, wraps: 0.016, gloves: 0.027 } as const;

export class Figure {
  readonly group = new THREE.Group();
  private readonly skins = new Map<string, Skin>();
  private readonly stuffs = new Map<string, THREE.Material>();
  private readonly head: THREE.Group;
  private readonly worn = new Map<BandName, BandMesh>();
  private readonly knot: THREE.Mesh;

  constructor(
    private readonly look: Look,
    private readonly height: number,
  ) {
    this.head = headOf(look, height);
    this.knot = new THREE.Mesh(
      new THREE.SphereGeometry(0.026, 16, 12),
      this.of(look.belt, 'weave'),
    );
    this.knot.castShadow = true;
    this.group.add(this.head);
    if (!look.bands) this.group.add(this.knot);
  }

  private of(color: string, stuff: Stuff): THREE.Material {
    const name = `${color} ${stuff}`;
    const known = this.stuffs.get(name) ?? made(color, stuff);
    this.stuffs.set(name, known);
    return known;
  }

  private lay(
    name: string,
    color: string,
    stuff: Stuff,
    rings: readonly Ring[],
    cut: Cut = {},
  ): void {
    let skin = this.skins.get(name);
    if (!skin) {
      skin = new Skin(rings.length, this.of(color, stuff), {
        tiles: [4, 4],
        girth: this.look.girth,
        ...cut,
      });
      this.skins.set(name, skin);
      this.group.add(skin.mesh);
    }
    skin.lay(rings);
  }

  /** Stand as `pose` says. */
  take(pose: Pose): void {
    const body = this.trunk(pose);
    for (const side of SIDES) {
      this.arm(pose, side, body.chest);
      this.leg(pose, side, body.pelvis, body.front);
    }
    this.head.position.copy(vector(pose.head));
  }

  private trunk(pose: Pose): {
    readonly pelvis: THREE.Vector3;
    readonly chest: THREE.Vector3;
    readonly front: THREE.Vector3;
  } {
    const h = this.height;
    const { look } = this;
    const across = (left: Point, right: Point) =>
      vector(right).sub(vector(left)).setY(0).normalize();
    const hips = across(pose.leftHip, pose.rightHip);
    const shoulders = across(pose.leftShoulder, pose.rightShoulder);
    const pelvis = vector(mix(pose.leftHip, pose.rightHip, 0.5));
    const chest = vector(mix(pose.leftShoulder, pose.rightShoulder, 0.5));
    const ring = (share: number, lift: number, width: number, depth: number): Ring => {
      const right = hips
        .clone()
        .lerp(shoulders, Math.min(1, Math.max(0, share)))
        .normalize();
      const front = new THREE.Vector3().crossVectors(UP, right).normalize();
      return {
        centre: pelvis
          .clone()
          .lerp(chest, share)
          .addScaledVector(UP, lift * h),
        right: right.multiplyScalar(width * h),
        front: front.multiplyScalar(depth * h),
      };
    };
    this.lay(
      'shirt',
      look.shirt,
      'knit',
      [
        ring(1, 0.036, 0.036, 0.034),
        ring(1, 0.026, 0.05, 0.042),
        ring(0.98, 0.012, 0.085, 0.055),
        ring(0.92, 0, 0.108, 0.066),
        ring(0.78, 0, 0.112, 0.074),
        ring(0.6, 0, 0.104, 0.072),
        ring(0.42, 0, 0.095, 0.066),
        ring(0.28, 0, 0.093, 0.065),
        ring(0.15, 0, 0.1, 0.07),
        ring(0.1, 0, 0.1, 0.07),
      ],
      { relief: folds(11, 0.036), square: 2.2, tiles: [10, 10] },
    );
    this.lay(
      'seat',
      look.shorts,
      'weave',
      [
        ring(0.12, 0, 0.094, 0.065),
        ring(0.1, 0, 0.1, 0.071),
        ring(0.05, 0, 0.101, 0.073),
        ring(0, -0.02, 0.099, 0.075),
        ring(0, -0.045, 0.082, 0.066),
        ring(0, -0.06, 0.05, 0.045),
      ],
      { square: 2.1, tiles: [10, 4] },
    );
    if (look.bands) this.bands(look.bands, pelvis, chest, hips, shoulders);
    else this.belt(ring);
    const neck = chest.clone().addScaledVector(UP, 0.012 * h);
    const front = new THREE.Vector3().crossVectors(UP, shoulders);
    this.lay('neck', look.skin, 'skin', limbRings([neck, vector(pose.head)], COLLAR, front));
    return { pelvis, chest, front: new THREE.Vector3().crossVectors(UP, hips) };
  }

  private belt(ring: (share: number, lift: number, width: number, depth: number) => Ring): void {
    this.lay(
      'belt',
      this.look.belt,
      'weave',
      [
        ring(0.115, 0, 0.106, 0.075),
        ring(0.13, 0, 0.108, 0.077),
        ring(0.18, 0, 0.106, 0.075),
        ring(0.195, 0, 0.103, 0.072),
      ],
      { square: 2.2, tiles: [10, 1] },
    );
    const knot = ring(0.155, 0, 0, 0.08);
    this.knot.position.copy(knot.centre).add(knot.front);
  }

  /** One turns with the hips, one with the shoulders, as the ribs do that it is tied round. */
  private bands(
    kind: BandKind,
    pelvis: THREE.Vector3,
    chest: THREE.Vector3,
    hips: THREE.Vector3,
    shoulders: THREE.Vector3,
  ): void {
    for (const band of BANDS) {
      let mesh = this.worn.get(band);
      if (!mesh) {
        mesh = new BandMesh(band, this.height, kind);
        this.worn.set(band, mesh);
        this.group.add(mesh.mesh);
      }
      const right = band === 'hips' ? hips : shoulders;
      mesh.sit({
        centre: pelvis.clone().lerp(chest, BAND_SECTIONS[band].share),
        right,
        front: new THREE.Vector3().crossVectors(UP, right).normalize(),
        up: chest.clone().sub(pelvis).normalize(),
      });
    }
  }

  private arm(pose: Pose, side: Side, chest: THREE.Vector3): void {
    const { look } = this;
    const [shoulder, elbow, wrist, index, little] = (
      ['Shoulder', 'Elbow', 'Wrist', 'IndexKnuckle', 'LittleKnuckle'] as const
    ).map((part) => vector(pose[`${side}${part}`]));
    const out = shoulder!.clone().sub(chest).setY(0).normalize();
    // An arm hardly ever lies along this.
    const front = out.clone().multiplyScalar(0.8).addScaledVector(UP, 0.6);
    this.lay(`${side}Arm`, look.skin, 'skin', limbRings([shoulder!, elbow!, wrist!], ARM, front));
    const neck = chest.clone().addScaledVector(UP, 0.022 * this.height);
    this.lay(
      `${side}Sleeve`,
      look.shirt,
      'knit',
      limbRings([neck, shoulder!, elbow!], SLEEVE, UP),
      { relief: folds(side === 'left' ? 3 : 5, 0.07), tiles: [6, 4] },
    );
    const kind = look.hands ?? 'wraps';
    const color = kind === 'bare' ? look.skin : (look.handsColor ?? '#e6dfcf');
    const stuff = ({ bare: 'skin', wraps: 'wrap', gloves: 'leather' } as const)[kind];
    const knuckles = index!.clone().add(little!).multiplyScalar(0.5);
    const flat = index!.clone().sub(little!).normalize();
    const palm = new THREE.Vector3().crossVectors(flat, knuckles.clone().sub(wrist!)).normalize();
    this.lay(`${side}Fist`, color, stuff, limbRings([wrist!, knuckles], HANDS[kind], palm), {
      square: 2.4,
    });
    const root = wrist!.clone().lerp(index!, 0.45).addScaledVector(flat, 0.012);
    const tip = index!.clone().addScaledVector(palm, THUMB[kind] * (side === 'left' ? -1.4 : 1.4));
    const thick = THUMB[kind];
    const thumb: readonly Section[] = [
      [-0.2, 0.5 * thick],
      [0.1, thick],
      [0.8, thick],
      [1.15, 0.6 * thick],
    ];
    this.lay(`${side}Thumb`, color, stuff, limbRings([root, tip], thumb, UP));
  }

  private leg(pose: Pose, side: Side, pelvis: THREE.Vector3, ahead: THREE.Vector3): void {
    const { look } = this;
    const [hip, knee, ankle, heel, toe] = (['Hip', 'Knee', 'Ankle', 'Heel', 'Toe'] as const).map(
      (part) => vector(pose[`${side}${part}`]),
    );
    // The front of a thigh that hangs looks ahead, of one that is raised up.
    const front = ahead.clone().addScaledVector(UP, 0.6);
    this.lay(`${side}Leg`, look.skin, 'skin', limbRings([hip!, knee!, ankle!], LEG, front));
    const top = pelvis.clone().addScaledVector(UP, -0.035 * this.height);
    this.lay(`${side}Shorts`, look.shorts, 'weave', limbRings([top, hip!, knee!], SHORTS, front), {
      relief: folds(side === 'left' ? 17 : 23, 0.075),
      tiles: [8, 6],
    });
    const [back, tip] = [heel!, toe!].map((point) => point.clone().addScaledVector(UP, 0.03));
    const shoe = look.shoes ?? '#d9d4c8';
    this.lay(`${side}Shoe`, shoe, 'leather', limbRings([back!, tip!], SHOE, UP), { square: 2.5 });
    const sock: readonly Section[] = [
      [-0.5, 0.037],
      [0, 0.038, 0.04],
      [0.9, 0.036, 0.042],
    ];
    const instep = back!.lerp(tip!, 0.25);
    this.lay(`${side}Sock`, '#efe9dc', 'knit', limbRings([ankle!, instep], sock, front));
  }
}
