import type { Solid } from '@lambent/core/builders';
import {
  AmbientLight,
  Box3,
  CanvasTexture,
  DirectionalLight,
  DoubleSide,
  EdgesGeometry,
  Group,
  LineBasicMaterial,
  LineSegments,
  Mesh,
  MeshBasicMaterial,
  MeshLambertMaterial,
  MultiplyBlending,
  type Object3D,
  OrthographicCamera,
  Raycaster,
  Scene,
  SRGBColorSpace,
  Vector2,
  Vector3,
  WebGLRenderer,
} from 'three';
import type { FacePicture } from './face-picture.ts';
import { geometryOf, linesOn, pictureOn } from './solid-geometry.ts';

/** What is drawn on a part: lines in its frame, as x, y, x, y, … in mm, and pictures. */
export interface PartMarks {
  readonly lines: readonly Float64Array[];
  readonly pictures: readonly FacePicture[];
}

/** What is drawn on parts, by their ids. */
export type Marks = ReadonlyMap<string, PartMarks>;

/** How the picture is turned, in radians: to the side, and from above; and how much larger it is shown. */
const usualView = { yaw: -0.6, pitch: 0.5, zoom: 1 };

/** Faces are drawn a little further away than the lines on them. */
const behindLines = { polygonOffset: true, polygonOffsetFactor: 1, polygonOffsetUnits: 2 };

/** So far parts go from the middle, as a share of how far theirs lies from that. */
const farthest = 1;

/**
 * A picture of parts that are put together, in three dimensions. It is drawn when something changed, and not otherwise.
 * @throws Error where the browser has no WebGL
 */
export class AssemblyScene {
  private readonly renderer: WebGLRenderer;
  private readonly scene = new Scene();
  private readonly camera = new OrthographicCamera();
  private readonly wood = new MeshLambertMaterial({ color: '#e6cf9f', ...behindLines });
  private readonly litWood = new MeshLambertMaterial({ color: '#5fb3b3', ...behindLines });
  private readonly ink = new LineBasicMaterial({ color: '#6b5527' });
  private readonly burnt = new LineBasicMaterial({ color: '#3a2712' });
  private parts: readonly { readonly id: string; readonly group: Group; readonly away: Vector3 }[] = [];
  private readonly middle = new Vector3();
  private reach = 1;
  private apart = 0;
  private view = usualView;
  private frame = 0;

  constructor(private readonly canvas: HTMLCanvasElement) {
    this.renderer = new WebGLRenderer({ canvas, antialias: true, alpha: true });
    this.renderer.setPixelRatio(window.devicePixelRatio);
    this.renderer.setSize(canvas.clientWidth, canvas.clientHeight, false);
    this.camera.up.set(0, 0, 1);
    const light = new DirectionalLight('#ffffff', 2.2);
    light.position.set(-0.5, 0.9, 1);
    this.camera.add(light);
    this.scene.add(new AmbientLight('#ffffff', 1.3), this.camera);
  }

  /** Shows other parts. */
  show(solids: readonly Solid[], marks: Marks): void {
    this.clear();
    const ids = [...new Set(solids.map(({ partId }) => partId))];
    const all = new Box3();
    const groups = ids.map((id) => {
      const group = new Group();
      group.userData.partId = id;
      for (const solid of solids.filter(({ partId }) => partId === id)) {
        const mesh = new Mesh(geometryOf(solid), this.wood);
        group.add(mesh, new LineSegments(new EdgesGeometry(mesh.geometry, 20), this.ink));
        const marked = marks.get(id);
        if (!marked || solid.hasOwnFrame) continue;
        group.add(new LineSegments(linesOn(solid, marked.lines), this.burnt));
        for (const picture of marked.pictures) group.add(new Mesh(pictureOn(solid, picture.corners), burntAs(picture)));
      }
      const box = new Box3().setFromObject(group);
      all.union(box);
      this.scene.add(group);
      return { id, group, box };
    });
    all.getCenter(this.middle);
    this.reach = all.getSize(new Vector3()).length() / 2;
    this.parts = groups.map(({ id, group, box }) => ({
      id,
      group,
      away: box.getCenter(new Vector3()).sub(this.middle),
    }));
    this.spread();
  }

  /** How far apart parts are shown, from 0 to 1. */
  setApart(share: number): void {
    this.apart = share;
    this.spread();
  }

  /** Points out a part; null for none. */
  light(id: string | null): void {
    for (const part of this.parts) {
      const material = part.id === id ? this.litWood : this.wood;
      for (const child of part.group.children) if (isBody(child)) child.material = material;
    }
    this.draw();
  }

  /** Turns the picture by so much, in radians. */
  turn(yaw: number, pitch: number): void {
    const { view } = this;
    const tilted = Math.min(Math.PI / 2 - 0.01, Math.max(-Math.PI / 2 + 0.01, view.pitch + pitch));
    this.view = { ...view, yaw: view.yaw + yaw, pitch: tilted };
    this.draw();
  }

  /** Shows it so many times as large. */
  zoom(factor: number): void {
    this.view = { ...this.view, zoom: Math.min(8, Math.max(0.4, this.view.zoom * factor)) };
    this.draw();
  }

  /** As it was seen first. */
  reset(): void {
    this.view = usualView;
    this.draw();
  }

  /** The part at a place of the canvas, in its pixels; null where there is none. */
  partAt(x: number, y: number): string | null {
    const { clientWidth, clientHeight } = this.canvas;
    const place = new Vector2((2 * x) / clientWidth - 1, 1 - (2 * y) / clientHeight);
    const ray = new Raycaster();
    ray.setFromCamera(place, this.camera);
    const meshes = this.parts.flatMap(({ group }) => group.children.filter(isBody));
    const [hit] = ray.intersectObjects(meshes, false);
    return hit ? String(hit.object.parent?.userData.partId) : null;
  }

  dispose(): void {
    cancelAnimationFrame(this.frame);
    this.clear();
    for (const material of [this.wood, this.litWood, this.ink, this.burnt]) material.dispose();
    this.renderer.dispose();
    // A browser has few of them, and takes one back late by itself.
    this.renderer.forceContextLoss();
  }

  private clear(): void {
    for (const { group } of this.parts) {
      this.scene.remove(group);
      for (const child of group.children) {
        if (child instanceof Mesh || child instanceof LineSegments) child.geometry.dispose();
        if (!(child instanceof Mesh) || isBody(child)) continue;
        child.material.map.dispose();
        child.material.dispose();
      }
    }
    this.parts = [];
  }

  private spread(): void {
    for (const { group, away } of this.parts) group.position.copy(away).multiplyScalar(this.apart * farthest);
    this.draw();
  }

  private draw(): void {
    cancelAnimationFrame(this.frame);
    this.frame = requestAnimationFrame(() => {
      this.aim();
      this.renderer.render(this.scene, this.camera);
    });
  }

  /** Looks at the middle from where the view says, so near that all parts are seen, however far apart they are. */
  private aim(): void {
    const { yaw, pitch, zoom } = this.view;
    const { camera, middle } = this;
    const half = (this.reach * (1 + this.apart * farthest)) / zoom;
    const wide = (half * this.canvas.clientWidth) / Math.max(1, this.canvas.clientHeight);
    [camera.left, camera.right, camera.top, camera.bottom] = [-wide, wide, half, -half];
    const far = this.reach * 8;
    [camera.near, camera.far] = [0.01, 2 * far];
    const direction = new Vector3(Math.sin(yaw) * Math.cos(pitch), -Math.cos(yaw) * Math.cos(pitch), Math.sin(pitch));
    camera.position.copy(middle).addScaledVector(direction, far);
    camera.lookAt(middle);
    camera.updateProjectionMatrix();
  }
}

/** Whether something in the scene is the stock of a part, and not a picture on it. */
const isBody = (child: Object3D): child is Mesh =>
  child instanceof Mesh && child.material instanceof MeshLambertMaterial;

/** A picture on stock, which it darkens. */
function burntAs({ canvas }: FacePicture): MeshBasicMaterial {
  const map = new CanvasTexture(canvas);
  map.colorSpace = SRGBColorSpace;
  map.flipY = false;
  map.premultiplyAlpha = true;
  return new MeshBasicMaterial({
    map,
    side: DoubleSide,
    transparent: true,
    premultipliedAlpha: true,
    blending: MultiplyBlending,
    depthWrite: false,
  });
}
