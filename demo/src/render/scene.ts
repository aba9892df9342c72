/**
 * The gym and the fighter in three.js, posed by the same joints the known answers come from. Runs
 * in a browser page opened by `make-clips.ts`, which asks for one frame after the other.
 */
import * as THREE from 'three';
import { knownTimes, mover, type Pose } from '../fighter/pose';
import { mix, type Point } from '../fighter/space';
import type { DemoClip } from '../gym/clips';
import { CAMERAS } from './camera';
import { Figure } from './figure';

declare global {
  interface Window {
    /** Called once with the clip, then `sinewFrame` gives each picture as a JPEG data URL. */
    sinewScene: (clip: DemoClip) => void;
    sinewFrame: (time: number) => string;
  }
}

const vector = ([x, y, z]: Point) => new THREE.Vector3(x, y, z);

function room(scene: THREE.Scene): void {
  scene.background = new THREE.Color('#b8b2a4');
  const plain = (color: string) => new THREE.MeshStandardMaterial({ color, roughness: 0.95 });
  const floor = new THREE.Mesh(new THREE.PlaneGeometry(30, 30), plain('#a9997f'));
  floor.rotation.x = -Math.PI / 2;
  floor.receiveShadow = true;
  scene.add(floor);
  for (let i = -12; i <= 12; i++) {
    const seam = new THREE.Mesh(new THREE.PlaneGeometry(30, 0.008), plain('#8d7d65'));
    seam.rotation.x = -Math.PI / 2;
    seam.position.set(0, 0.001, i * 0.35);
    scene.add(seam);
  }
  const wall = (width: number, height: number, color: string, at: Point, turn: number) => {
    const mesh = new THREE.Mesh(new THREE.PlaneGeometry(width, height), plain(color));
    mesh.position.copy(vector(at));
    mesh.rotation.y = turn;
    mesh.receiveShadow = true;
    scene.add(mesh);
  };
  wall(30, 6, '#cfc8b8', [0, 3, -2.6], 0);
  wall(30, 0.16, '#54636b', [0, 1.02, -2.59], 0);
  wall(30, 6, '#c6bfae', [-5, 3, 0], Math.PI / 2);
  wall(30, 0.16, '#54636b', [-4.99, 1.02, 0], Math.PI / 2);
  wall(30, 6, '#c6bfae', [6, 3, 0], -Math.PI / 2);
}

function lights(scene: THREE.Scene): void {
  scene.add(new THREE.HemisphereLight('#fdf6e8', '#9a8a73', 2.2));
  const sun = new THREE.DirectionalLight('#fff4e0', 2.4);
  sun.position.set(2.2, 4.5, 3.4);
  sun.target.position.set(0.2, 0.9, 0);
  sun.castShadow = true;
  sun.shadow.mapSize.set(1024, 1024);
  Object.assign(sun.shadow.camera, {
    left: -2,
    right: 2,
    top: 2.2,
    bottom: -2.2,
    near: 1,
    far: 10,
  });
  sun.shadow.radius = 5;
  scene.add(sun, sun.target);
}

/** A hanging bag that stands where the fist lands, gives with it and swings back. */
function bag(scene: THREE.Scene, clip: DemoClip, pose: (time: number) => Pose) {
  const { contact, end } = knownTimes(clip.recipe);
  const isLeftHand = clip.recipe.technique !== 'cross';
  const fist = (time: number) => {
    const p = pose(time);
    return isLeftHand
      ? mix(p.leftIndexKnuckle, p.leftLittleKnuckle, 0.5)
      : mix(p.rightIndexKnuckle, p.rightLittleKnuckle, 0.5);
  };
  const touch = fist(contact);
  const isHook = clip.recipe.technique === 'lead-hook';
  const radius = 0.15;
  const centre = new THREE.Vector3(
    touch[0] + (isHook ? 0.02 : radius + 0.03),
    0,
    touch[2] + (isHook ? radius + 0.03 : 0),
  );
  const mesh = new THREE.Mesh(
    new THREE.CylinderGeometry(radius, radius, 0.95, 40),
    new THREE.MeshStandardMaterial({ color: '#5b4634', roughness: 0.7 }),
  );
  mesh.castShadow = true;
  mesh.receiveShadow = true;
  const rope = new THREE.Mesh(
    new THREE.CylinderGeometry(0.012, 0.012, 3),
    new THREE.MeshStandardMaterial({ color: '#d8cfb8' }),
  );
  scene.add(mesh);
  // From above the rope would hang across the lens.
  if (clip.view !== 'above') scene.add(rope);
  return (time: number) => {
    const pushed = fist(Math.min(time, end));
    const give = time <= contact ? 0 : isHook ? pushed[2] - touch[2] : pushed[0] - touch[0];
    const after = Math.max(0, time - end);
    const swing = give * Math.exp(-after * 2) + (after > 0 ? 0.07 * Math.sin(after * 3.4) : 0);
    mesh.position.set(centre.x + (isHook ? 0 : swing), 1.32, centre.z + (isHook ? swing : 0));
    rope.position.set(mesh.position.x, 3.3, mesh.position.z);
  };
}

window.sinewScene = (clip) => {
  const camera = CAMERAS[clip.view];
  const renderer = new THREE.WebGLRenderer({ antialias: true, preserveDrawingBuffer: true });
  renderer.setSize(camera.width, camera.height);
  renderer.shadowMap.enabled = true;
  renderer.shadowMap.type = THREE.PCFShadowMap;
  renderer.toneMapping = THREE.NeutralToneMapping;
  const scene = new THREE.Scene();
  room(scene);
  lights(scene);
  const eye = new THREE.PerspectiveCamera(
    (camera.fieldOfView * 180) / Math.PI,
    camera.width / camera.height,
    0.1,
    40,
  );
  eye.position.copy(vector(camera.position));
  eye.up.copy(vector(camera.up));
  eye.lookAt(vector(camera.lookAt));
  const pose = mover(clip.recipe);
  const figure = new Figure(clip.look, clip.recipe.height);
  scene.add(figure.group);
  const moveBag = bag(scene, clip, pose);
  window.sinewFrame = (time) => {
    figure.take(pose(time));
    moveBag(time);
    renderer.render(scene, eye);
    return renderer.domElement.toDataURL('image/jpeg', 0.95);
  };
};
