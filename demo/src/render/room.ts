/** The boathouse: a boarded room with windows, racks of boats and oars, and what a gym has lying about. */
import * as THREE from 'three';
import { seeded } from '@sinew/core/foundation/uncertainty/random';
import type { Point } from '@sinew/fighters/fighter/space';

type Paint = (sheet: CanvasRenderingContext2D, size: number, random: () => number) => void;

function painted(size: number, seed: number, paint: Paint): THREE.CanvasTexture {
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [size, size];
  paint(canvas.getContext('2d')!, size, seeded(seed));
  const texture = new THREE.CanvasTexture(canvas);
  texture.colorSpace = THREE.SRGBColorSpace;
  texture.anisotropy = 8;
  texture.wrapS = THREE.RepeatWrapping;
  texture.wrapT = THREE.RepeatWrapping;
  return texture;
}

/** Boards side by side, each a little lighter or darker, with grain along them and a dark joint. */
function boards(count: number, [hue, saturation, light]: Point): Paint {
  return (sheet, size, random) => {
    const wide = size / count;
    for (let board = 0; board < count; board++) {
      const own = light + 5 * (random() - 0.5);
      sheet.fillStyle = `hsl(${hue} ${saturation}% ${own}%)`;
      sheet.fillRect(board * wide, 0, wide, size);
      for (let line = 0; line < 26; line++) {
        sheet.fillStyle = `hsl(${hue} ${saturation}% ${own - 3 - 4 * random()}% / 0.5)`;
        const from = size * random();
        sheet.fillRect(board * wide + wide * random(), from, 1, size * 0.4 * random());
      }
      sheet.fillStyle = `hsl(${hue} ${saturation}% ${own - 17}%)`;
      sheet.fillRect(board * wide, 0, Math.max(1.5, wide * 0.018), size);
    }
  };
}

/** Morning over the harbour: sky, a far shore, water. */
const OUTSIDE: Paint = (sheet, size, random) => {
  const sky = sheet.createLinearGradient(0, 0, 0, size);
  sky.addColorStop(0, '#dfe9ec');
  sky.addColorStop(0.55, '#f6f1e2');
  sky.addColorStop(0.62, '#a9b7b4');
  sky.addColorStop(1, '#8fa5a8');
  sheet.fillStyle = sky;
  sheet.fillRect(0, 0, size, size);
  sheet.fillStyle = '#7c8a83';
  for (let x = 0; x < size; x += 4) sheet.fillRect(x, size * (0.585 - 0.03 * random()), 4, 12);
};

const matt = (color: string, roughness = 0.9) =>
  new THREE.MeshStandardMaterial({ color, roughness });

function add(scene: THREE.Object3D, shape: THREE.BufferGeometry, stuff: THREE.Material, at: Point) {
  const mesh = new THREE.Mesh(shape, stuff);
  mesh.position.set(...at);
  mesh.castShadow = true;
  mesh.receiveShadow = true;
  scene.add(mesh);
  return mesh;
}

const box = (size: Point) => new THREE.BoxGeometry(...size);

/** A wall that looks along its own third axis: boards down to a rail, darker below it. */
function wall(scene: THREE.Object3D, at: Point, turn: number, light: number): THREE.Group {
  const group = new THREE.Group();
  group.position.set(...at);
  group.rotation.y = turn;
  scene.add(group);
  const sheet = (height: number, middle: number, tint: Point, seed: number) => {
    const map = painted(512, seed, boards(6, tint));
    map.repeat.set(20, 1);
    const plane = new THREE.PlaneGeometry(30, height);
    add(group, plane, new THREE.MeshStandardMaterial({ map, roughness: 0.95 }), [0, middle, 0]);
  };
  sheet(4.6, 3.4, [40, 18, light], 21);
  sheet(1.1, 0.55, [196, 9, light - 34], 22);
  add(group, box([30, 0.09, 0.05]), matt('#d9cfb6'), [0, 1.12, 0.02]);
  add(group, box([30, 0.14, 0.03]), matt('#4a5054'), [0, 0.07, 0.015]);
  return group;
}

/** With two bars across, lit from outside. */
function casement(group: THREE.Group, x: number, y: number, wide: number, high: number): void {
  const pane = new THREE.MeshBasicMaterial({ map: painted(256, 5, OUTSIDE) });
  const glass = add(group, new THREE.PlaneGeometry(wide, high), pane, [x, y, 0.012]);
  glass.castShadow = false;
  const frame = matt('#ece5d3');
  for (const side of [-1, 1]) {
    add(group, box([0.07, high + 0.14, 0.07]), frame, [x + (side * wide) / 2, y, 0.03]);
    add(group, box([wide + 0.14, 0.07, 0.07]), frame, [x, y + (side * high) / 2, 0.03]);
  }
  add(group, box([0.035, high, 0.04]), frame, [x, y, 0.03]);
  add(group, box([wide, 0.035, 0.04]), frame, [x, y + high / 6, 0.03]);
}

/** Leans on the wall, blade up. */
function oar(group: THREE.Group, x: number, lean: number, blade: string): void {
  const whole = new THREE.Group();
  add(whole, new THREE.CylinderGeometry(0.02, 0.026, 2.7, 10), matt('#b98a52', 0.6), [0, 1.35, 0]);
  add(whole, box([0.17, 0.5, 0.02]), matt(blade, 0.6), [0, 2.72, 0]);
  whole.position.set(x, 0, 0.34);
  whole.rotation.set(-0.1, 0, lean);
  group.add(whole);
}

/** Boats keel down on three arms, one over the other. */
function rack(group: THREE.Group, x: number, colors: readonly string[]): void {
  for (const at of [-1.3, 1.3]) {
    add(group, box([0.08, 2.7, 0.08]), matt('#6d5a41'), [x + at, 1.35, 0.1]);
  }
  colors.forEach((color, i) => {
    const y = 0.75 + 0.62 * i;
    for (const at of [-1.3, 1.3])
      add(group, box([0.07, 0.06, 0.6]), matt('#6d5a41'), [x + at, y, 0.35]);
    const hull = add(group, new THREE.SphereGeometry(1, 36, 16), matt(color, 0.35), [
      x,
      y + 0.17,
      0.4,
    ]);
    hull.scale.set(2.6, 0.16, 0.21);
  });
}

function bench(group: THREE.Group, x: number): void {
  const wood = matt('#9a7a50', 0.7);
  add(group, box([1.5, 0.05, 0.34]), wood, [x, 0.45, 0.4]);
  for (const at of [-0.62, 0.62]) add(group, box([0.07, 0.44, 0.3]), wood, [x + at, 0.22, 0.4]);
}

/** Rolled, on a peg. */
function coil(group: THREE.Group, x: number, color: string): void {
  for (const [i, radius] of [0.13, 0.15, 0.165].entries()) {
    const ring = new THREE.TorusGeometry(radius, 0.013, 8, 30);
    add(group, ring, matt(color), [x, 1.62 - 0.02 * i, 0.05 + 0.025 * i]);
  }
}

function bell(group: THREE.Group, x: number, z: number): void {
  const iron = matt('#3b3d40', 0.5);
  add(group, new THREE.SphereGeometry(0.1, 20, 16), iron, [x, 0.1, z]);
  add(group, new THREE.TorusGeometry(0.06, 0.015, 8, 20, Math.PI), iron, [x, 0.18, z]);
}

/** Its walls are so far from the student, metres, as a camera needs to stand clear of what leans on them. */
const CLEAR = { left: -4.7, right: 5.7, back: -2.3 } as const;

/**
 * By how much the room is turned round the student so that a camera stands in it, radians: not at all where it
 * does, else until it looks into a corner.
 */
function turnFor([x, , z]: Point): number {
  if (x > CLEAR.left && x < CLEAR.right && z > CLEAR.back) return 0;
  return (x < 0 ? 0.75 : 0.25) * Math.PI - Math.atan2(z, x);
}

/** @param eye where the camera stands that looks at the student in its middle, metres */
export function boathouse(scene: THREE.Scene, eye: Point): void {
  scene.background = new THREE.Color('#b8b2a4');
  const hall = new THREE.Group();
  hall.rotation.y = turnFor(eye);
  scene.add(hall);
  const floor = painted(1024, 3, boards(8, [34, 27, 57]));
  floor.repeat.set(10.7, 10.7);
  floor.rotation = Math.PI / 2;
  const planks = new THREE.MeshStandardMaterial({ map: floor, roughness: 0.8 });
  const ground = add(hall, new THREE.PlaneGeometry(30, 30), planks, [0, 0, 0]);
  ground.rotation.x = -Math.PI / 2;

  const long = wall(hall, [0, 0, -2.6], 0, 74);
  for (const x of [-3.4, -1.55, 2.35, 4.2]) casement(long, x, 1.95, 1, 1.05);
  oar(long, -0.62, 0.05, '#8c3f36');
  oar(long, -0.4, 0.02, '#8c3f36');
  oar(long, 3.3, -0.04, '#39596b');
  bench(long, 2.1);
  coil(long, 1.35, '#c9b48a');
  bell(long, 1.2, 0.3);
  bell(long, 0.9, 0.36);

  const landing = wall(hall, [-5, 0, 0], Math.PI / 2, 70);
  rack(landing, -2.2, ['#b8482f', '#e4dcc6', '#2f4f5e']);
  casement(landing, 1.1, 1.9, 1.3, 1.1);
  coil(landing, 2.15, '#7e8a70');
  bench(landing, 1.1);
  oar(landing, 2.6, -0.05, '#39596b');

  const quay = wall(hall, [6, 0, 0], -Math.PI / 2, 66);
  rack(quay, 2.7, ['#2f4f5e', '#b79a4b', '#e4dcc6']);
  casement(quay, -1.7, 1.95, 1.5, 1.1);
  oar(quay, -0.55, 0.03, '#8c3f36');
  bench(quay, -1.9);
  coil(quay, 0.55, '#c9b48a');

  const office = wall(hall, [0, 0, 9], Math.PI, 70);
  casement(office, 0.2, 1.9, 2, 1.1);
  rack(office, -3.2, ['#e4dcc6', '#b8482f', '#39596b']);
}

/** Where the sun stands from where it shines on. */
const SUN = new THREE.Vector3(2, 3.6, 3.4);

export function daylight(scene: THREE.Scene): void {
  scene.add(new THREE.HemisphereLight('#fdf6e8', '#9a8a73', 2));
  const sun = new THREE.DirectionalLight('#fff4e0', 2.3);
  sun.target.position.set(0.2, 0.9, 0);
  sun.position.copy(sun.target.position).add(SUN);
  sun.castShadow = true;
  sun.shadow.mapSize.set(1024, 1024);
  const reach = { left: -2, right: 2, top: 2.2, bottom: -2.2, near: 1, far: 10 };
  Object.assign(sun.shadow.camera, reach);
  sun.shadow.radius = 5;
  const cool = new THREE.DirectionalLight('#dfe9f2', 0.5);
  cool.position.set(-3, 2.5, -2);
  scene.add(sun, sun.target, cool);
}
