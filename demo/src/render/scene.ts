/**
 * The gym and the fighter in three.js, posed by the same joints the known answers come from. Runs
 * in a browser page opened by `make-clips.ts`, which asks for one frame after the other.
 */
import * as THREE from 'three';
import { techniqueById } from '@sinew/core/foundation/technique/techniques';
import { strikingSide } from '@sinew/core/foundation/technique/strike';
import { strikingEnd } from '@sinew/fighters/fighter/end';
import { knownTimes, mover, type Pose } from '@sinew/fighters/fighter/pose';
import type { Point } from '@sinew/fighters/fighter/space';
import type { DemoClip, Look } from '@sinew/fighters/film/clips';
import { hitsOf, takeMover, type DemoTake, type TakeFilm } from '@sinew/fighters/film/takes';
import { CAMERAS, type Camera } from '@sinew/fighters/film/camera';
import { Figure } from './figure';
import { boathouse, daylight } from './room';

declare global {
  interface Window {
    /** Called once with what is filmed, then `sinewFrame` gives each picture as a JPEG data URL. */
    sinewScene: (subject: Subject) => void;
    sinewFrame: (time: number, exposure: number) => string;
  }
}

/** What a camera is pointed at: one strike, or one camera's part of a long take. */
export type Subject = DemoClip | { readonly take: DemoTake; readonly film: TakeFilm };

/** Everything the picture needs: who moves how, where the bag hangs, who looks. */
interface Stage {
  readonly camera: Camera;
  readonly look: Look;
  readonly height: number;
  readonly pose: (time: number) => Pose;
  /** Centre of the bag over the floor, x and z; null where none hangs. */
  readonly bag: ((time: number) => readonly [number, number]) | null;
  readonly hasRope: boolean;
  readonly mat: readonly Point[];
}

type Bag = NonNullable<Stage['bag']>;

const vector = ([x, y, z]: Point) => new THREE.Vector3(x, y, z);

const BAG_RADIUS = 0.15;

/** A hanging bag that stands where the fist lands, gives with it and swings back. */
function bagOfClip(clip: DemoClip, pose: (time: number) => Pose): Bag {
  const { contact, end } = knownTimes(clip.recipe);
  const technique = techniqueById(clip.recipe.technique);
  const striking = strikingEnd(technique, strikingSide(technique, clip.recipe.stance));
  const fist = (time: number) => striking(pose(time));
  const touch = fist(contact);
  const isHook = technique.family === 'hook';
  const x = touch[0] + (isHook ? 0.02 : BAG_RADIUS + 0.03);
  const z = touch[2] + (isHook ? BAG_RADIUS + 0.03 : 0);
  return (time) => {
    const pushed = fist(Math.min(time, end));
    const give = time <= contact ? 0 : isHook ? pushed[2] - touch[2] : pushed[0] - touch[0];
    const after = Math.max(0, time - end);
    const swing = give * Math.exp(-after * 2) + (after > 0 ? 0.07 * Math.sin(after * 3.4) : 0);
    return isHook ? [x, z + swing] : [x + swing, z];
  };
}

/** Just before contact, seconds: tells which way the strike goes. */
const A_MOMENT = 0.004;

/** Struck several times, the bag swings on from each hit and comes to rest. */
function bagOfTake(take: DemoTake): Bag {
  const hits = hitsOf(take);
  const ways = take.strikes.map(({ recipe }) => {
    const side = strikingSide(techniqueById(recipe.technique), recipe.stance);
    const end = strikingEnd(techniqueById(recipe.technique), side);
    const { contact } = knownTimes(recipe);
    const [before, then] = [contact - A_MOMENT, contact].map((time) => end(mover(recipe)(time)));
    const [x, z] = [then![0] - before![0], then![2] - before![2]];
    return [x / Math.hypot(x, z), z / Math.hypot(x, z)] as const;
  });
  // The strikes that reach farthest touch it.
  const places = hits.map(({ place }, i) => [
    place[0] + 0.11 * ways[i]![0],
    place[2] + 0.11 * ways[i]![1],
  ]);
  const x = Math.max(...places.map((place) => place[0]!));
  const z = places.reduce((sum, place) => sum + place[1]!, 0) / places.length;
  return (time) => {
    const at = [x, z] as [number, number];
    hits.forEach((hit, i) => {
      const after = time - hit.time;
      if (after <= 0) return;
      const swing = 0.06 * Math.exp(-1.6 * after) * Math.sin(3.4 * after);
      at[0] += swing * ways[i]![0];
      at[1] += swing * ways[i]![1];
    });
    return at;
  };
}

function hang(scene: THREE.Scene, { bag, hasRope }: Stage): (time: number) => void {
  if (!bag) return () => {};
  const mesh = new THREE.Mesh(
    new THREE.CylinderGeometry(BAG_RADIUS, BAG_RADIUS, 0.95, 40),
    new THREE.MeshStandardMaterial({ color: '#5b4634', roughness: 0.7 }),
  );
  mesh.castShadow = true;
  mesh.receiveShadow = true;
  const rope = new THREE.Mesh(
    new THREE.CylinderGeometry(0.012, 0.012, 3),
    new THREE.MeshStandardMaterial({ color: '#d8cfb8' }),
  );
  scene.add(mesh);
  if (hasRope) scene.add(rope);
  return (time) => {
    const [x, z] = bag(time);
    mesh.position.set(x, 1.32, z);
    rope.position.set(x, 3.3, z);
  };
}

/** Light tape along the edges of a rectangle on the floor; its outer corners are the corners. */
function tape(scene: THREE.Scene, corners: readonly Point[]): void {
  if (corners.length === 0) return;
  const width = 0.05;
  const material = new THREE.MeshStandardMaterial({ color: '#f4efe2', roughness: 0.8 });
  const middle = corners
    .reduce((sum, corner) => sum.add(vector(corner)), new THREE.Vector3())
    .divideScalar(corners.length);
  corners.forEach((corner, i) => {
    const [from, to] = [vector(corner), vector(corners[(i + 1) % corners.length]!)];
    const way = to.clone().sub(from);
    const inward = middle.clone().sub(from);
    inward.addScaledVector(way, -inward.dot(way) / way.lengthSq()).normalize();
    const strip = new THREE.Mesh(new THREE.PlaneGeometry(way.length(), width), material);
    strip.rotation.set(-Math.PI / 2, 0, Math.atan2(-way.z, way.x));
    strip.position
      .copy(from)
      .add(to)
      .multiplyScalar(0.5)
      .addScaledVector(inward, width / 2)
      .setY(0.003);
    strip.receiveShadow = true;
    scene.add(strip);
  });
}

function stageOf(subject: Subject): Stage {
  if ('take' in subject) {
    const { take, film } = subject;
    return {
      camera: film.camera,
      look: take.look,
      height: take.strikes[0]!.recipe.height,
      pose: takeMover(take),
      bag: bagOfTake(take),
      hasRope: true,
      mat: take.mat,
    };
  }
  const pose = mover(subject.recipe);
  return {
    camera: subject.camera ?? CAMERAS[subject.view],
    look: subject.look,
    height: subject.recipe.height,
    pose,
    bag: subject.isInTheAir ? null : bagOfClip(subject, pose),
    // From above the rope would hang across the lens.
    hasRope: subject.view !== 'above',
    mat: [],
  };
}

/** Moments laid over each other while the shutter is open, each a part of a pixel aside: edges come out smooth. */
const SHUTTER: readonly (readonly [number, number])[] = [
  [0.125, 0.375],
  [0.375, -0.125],
  [-0.125, -0.375],
  [-0.375, 0.125],
];

function sheetOf({ width, height }: Pick<Camera, 'width' | 'height'>): CanvasRenderingContext2D {
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [width, height];
  return canvas.getContext('2d')!;
}

/**
 * Darkens the floor of the room's picture as much as the sun lights it: it gives two fifths of the light, and what
 * is left looks 0.79 times as bright.
 */
function shade(): THREE.Mesh {
  const floor = new THREE.Mesh(
    new THREE.PlaneGeometry(8, 8),
    new THREE.ShadowMaterial({ opacity: 0.21 }),
  );
  floor.rotation.x = -Math.PI / 2;
  floor.position.y = 0.002;
  floor.receiveShadow = true;
  return floor;
}

window.sinewScene = (subject) => {
  const stage = stageOf(subject);
  const { camera } = stage;
  const { width, height } = camera;
  const renderer = new THREE.WebGLRenderer({ preserveDrawingBuffer: true, alpha: true });
  renderer.setSize(width, height);
  renderer.shadowMap.enabled = true;
  renderer.shadowMap.autoUpdate = false;
  renderer.shadowMap.type = THREE.PCFShadowMap;
  renderer.toneMapping = THREE.NeutralToneMapping;
  const fieldOfView = (camera.fieldOfView * 180) / Math.PI;
  const eye = new THREE.PerspectiveCamera(fieldOfView, width / height, 0.1, 40);
  eye.position.copy(vector(camera.position));
  eye.up.copy(vector(camera.up));
  eye.lookAt(vector(camera.lookAt));
  const [behind, moment, film] = [sheetOf(camera), sheetOf(camera), sheetOf(camera)];
  /** What moves while the shutter is open is the mean of where it was, drawn over what stands still. */
  const expose = (scene: THREE.Scene, pose: (share: number) => void) => {
    renderer.shadowMap.needsUpdate = true;
    SHUTTER.forEach(([x, y], i) => {
      pose(i / SHUTTER.length - 0.5);
      eye.setViewOffset(width, height, x, y, width, height);
      renderer.render(scene, eye);
      moment.drawImage(behind.canvas, 0, 0);
      moment.drawImage(renderer.domElement, 0, 0);
      film.globalAlpha = 1 / (i + 1);
      film.drawImage(moment.canvas, 0, 0);
    });
  };

  // The room stands still and behind everybody: drawn once.
  const room = new THREE.Scene();
  boathouse(room, camera.position);
  daylight(room);
  tape(room, stage.mat);
  expose(room, () => {});
  behind.drawImage(film.canvas, 0, 0);
  const scene = new THREE.Scene();
  daylight(scene);
  scene.add(shade());
  const figure = new Figure(stage.look, stage.height);
  scene.add(figure.group);
  const moveBag = hang(scene, stage);
  window.sinewFrame = (time, exposure) => {
    expose(scene, (share) => {
      const now = Math.max(0, time + exposure * share);
      figure.take(stage.pose(now));
      moveBag(now);
    });
    return film.canvas.toDataURL('image/jpeg', 0.95);
  };
};
