/** A head: skull, jaw and face of one surface, hair over it, ears, eyes, nose, lips. */
import * as THREE from 'three';
import type { Look } from '@sinew/fighters/film/clips';
import type { Point } from '@sinew/fighters/fighter/space';
import { made } from './cloth';
import { Skin, type Relief, type Ring } from './skin';

/** Height over the head's centre, half-width, half-depth, how far to the front; parts of the body's height. */
const FACE = [
  [-0.0735, 0.013, 0.012, 0.029],
  [-0.066, 0.025, 0.024, 0.021],
  [-0.05, 0.035, 0.036, 0.011],
  [-0.03, 0.0405, 0.044, 0.006],
  [-0.005, 0.0435, 0.0505, 0.002],
  [0.02, 0.0455, 0.0535, -0.001],
  [0.045, 0.0435, 0.0515, -0.004],
  [0.062, 0.034, 0.041, -0.006],
  [0.0705, 0.02, 0.024, -0.007],
  [0.0735, 0.006, 0.008, -0.007],
] as const;

/** Where hair begins over the front, the sides and the back, as a share of the way from chin to crown. */
const HAIRLINE = { front: 0.63, side: 0.5, back: 0.26 };
/** Over how much of that way it thins out. */
const THINS = 0.07;
/** What lies under the skin cannot be seen. */
const HIDDEN = -0.15;

type Style = NonNullable<Look['style']>;
const THICK: Readonly<Record<Style, number>> = {
  short: 0.035,
  shaved: 0.012,
  tied: 0.03,
  curls: 0.11,
};

const between = (value: number) => Math.min(1, Math.max(0, value));

function hairOf(style: Style): Relief {
  const thick = THICK[style];
  const curl: Relief = (angle, share) =>
    style === 'curls' ? 0.05 * Math.sin(9 * angle + 30 * share) * Math.sin(41 * share) : 0;
  return (angle, share) => {
    const front = Math.sin(angle);
    const { side } = HAIRLINE;
    const line = side + front * (front > 0 ? HAIRLINE.front - side : side - HAIRLINE.back);
    const over = between((share - line) / THINS);
    return HIDDEN + over * (thick + curl(angle, share) - HIDDEN);
  };
}

/** Looks along the first axis. */
export function headOf(look: Look, height: number): THREE.Group {
  const group = new THREE.Group();
  const flesh = made(look.skin, 'skin');
  const hair = made(look.hair, 'hair');
  const style = look.style ?? 'short';
  const rings: Ring[] = FACE.map(([up, width, depth, ahead]) => ({
    centre: new THREE.Vector3(ahead * height, up * height, 0),
    right: new THREE.Vector3(0, 0, width * height),
    front: new THREE.Vector3(depth * height, 0, 0),
  }));
  const over = (material: THREE.Material, relief?: Relief) => {
    const skin = new Skin(rings.length, material, { relief, fine: 9, square: 2.2, tiles: [6, 2] });
    skin.lay(rings);
    group.add(skin.mesh);
  };
  over(flesh);
  over(hair, hairOf(style));

  const ball = (material: THREE.Material, size: Point, at: Point, lean = 0) => {
    const mesh = new THREE.Mesh(new THREE.SphereGeometry(height, 24, 18), material);
    mesh.scale.set(...size);
    mesh.position.set(...at).multiplyScalar(height);
    mesh.rotation.z = lean;
    mesh.castShadow = true;
    group.add(mesh);
  };
  const white = made('#ece6dc', 'leather');
  const dark = made('#241a13', 'leather');
  const lip = made(mixed(look.skin, '#7a2e2a', 0.4), 'skin');
  ball(flesh, [0.006, 0.017, 0.0062], [0.0525, 0.006, 0], 0.24);
  ball(flesh, [0.0085, 0.0068, 0.0088], [0.0555, -0.0065, 0]);
  ball(lip, [0.006, 0.0028, 0.0125], [0.0485, -0.0315, 0]);
  ball(lip, [0.006, 0.0032, 0.0115], [0.0475, -0.0365, 0]);
  if (style === 'tied') ball(hair, [0.021, 0.02, 0.021], [-0.06, 0.035, 0]);
  for (const side of [-1, 1]) {
    ball(white, [0.006, 0.0052, 0.0082], [0.0455, 0.0125, side * 0.0185]);
    ball(dark, [0.0035, 0.004, 0.004], [0.0495, 0.0125, side * 0.0182]);
    ball(flesh, [0.007, 0.0028, 0.0098], [0.046, 0.0178, side * 0.0188]);
    ball(hair, [0.004, 0.0022, 0.012], [0.0485, 0.0262, side * 0.0195], 0.1);
    ball(flesh, [0.0085, 0.0155, 0.0048], [-0.002, 0.001, side * 0.0445], -0.15);
    ball(lip, [0.004, 0.009, 0.003], [-0.001, 0.001, side * 0.0475], -0.15);
  }
  return group;
}

function mixed(color: string, other: string, share: number): string {
  return `#${new THREE.Color(color).lerp(new THREE.Color(other), share).getHexString()}`;
}
