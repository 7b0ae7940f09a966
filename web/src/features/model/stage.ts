/** The building on a stage: three.js, and all that knows of it. Lengths in mm, z up. */
import {
  AmbientLight,
  Box3,
  BufferAttribute,
  BufferGeometry,
  Color,
  DirectionalLight,
  Mesh,
  MeshLambertMaterial,
  OrthographicCamera,
  PerspectiveCamera,
  Raycaster,
  Scene,
  Vector2,
  Vector3,
  WebGLRenderer,
} from "three";
import { OrbitControls } from "three/examples/jsm/controls/OrbitControls.js";
import { colours } from "../../theme/theme";
import { EdgeLines } from "./edgeLines";
import { measuredFrom, type Place } from "./measuring";
import { ANGLE, axonometricSight, bearingOf, halfHeight, perspectiveSight, type Sight } from "./sights";
import { joined, largestFirst, type Solid } from "./solid";

export type Way = readonly [number, number, number];

/** As far as one can rise above the building without tipping over; radians. */
const STEEPEST = 1.55;
/** A frame that takes longer is felt as a stall, one that takes less has room for more; milliseconds. */
const [SLOW, QUICK] = [50, 25] as const;
/** Never fewer triangles than this are shown while turning, or nothing would be recognised. */
const MIN_SHOWN = 4_000;
/** So long after the last movement all of the building is drawn again; milliseconds. */
const REST = 180;

/** So far beside the building is still on it; pixels. */
const REACHES = [3, 6] as const;

interface Picked {
  element: number;
  place: Place;
  /** Of its face, as `bearingOf` tells it. */
  bearing: number | null;
}

export class Stage {
  private readonly renderer: WebGLRenderer;
  private readonly scene = new Scene();
  private readonly flat = new OrthographicCamera();
  private readonly deep = new PerspectiveCamera(ANGLE);
  private camera: OrthographicCamera | PerspectiveCamera = this.flat;
  private controls: OrbitControls;
  private readonly mesh: Mesh<BufferGeometry, MeshLambertMaterial>;
  private readonly edges: EdgeLines;
  private readonly paint: BufferAttribute;
  /** Where each shown element's triangles begin among those drawn. */
  private shownFrom: number[] = [];
  private shownElements: number[] = [];
  private ghosts: Mesh<BufferGeometry, MeshLambertMaterial> | null = null;
  /** The numbers of all elements, the largest first. */
  private readonly bySize: readonly number[];
  private readonly middle = new Vector3();
  private readonly box = new Box3();
  private radius = 1;
  private wanted = 0;
  /**
   * While one turns it on a slow machine: how many of its triangles are drawn, the largest elements first.
   */
  private budget = Infinity;
  private moving = false;
  private steering = false;
  private resting = 0;
  private last = 0;
  private readonly watchers = new Set<() => void>();

  constructor(
    private readonly canvas: HTMLCanvasElement,
    readonly solid: Solid,
  ) {
    this.renderer = new WebGLRenderer({ canvas, antialias: true });
    this.renderer.setPixelRatio(window.devicePixelRatio || 1);
    this.renderer.setClearColor(colours.sandPale);
    const places = new BufferAttribute(solid.places, 3);
    this.paint = new BufferAttribute(new Uint8Array(solid.places.length), 3, true);
    const body = new BufferGeometry();
    body.setAttribute("position", places);
    body.setAttribute("color", this.paint);
    this.box.setFromBufferAttribute(places);
    this.box.getCenter(this.middle);
    this.radius = Math.max(this.box.getSize(new Vector3()).length() / 2, 1);
    const shade = new MeshLambertMaterial({
      vertexColors: true,
      flatShading: true,
      polygonOffset: true,
      polygonOffsetFactor: 1,
      polygonOffsetUnits: 1,
    });
    this.mesh = new Mesh(body, shade);
    this.edges = new EdgeLines(solid, body);
    const sun = new DirectionalLight("#ffffff", 1.9);
    sun.position.set(-0.4, -0.7, 0.9);
    this.scene.add(this.mesh, this.edges.lines, new AmbientLight("#ffffff", 1.5), sun);
    this.bySize = largestFirst(solid);
    for (const camera of [this.flat, this.deep]) camera.up.set(0, 0, 1);
    this.controls = this.held();
    this.colour(() => null);
    this.show(() => true);
    this.look([1, -1, 0.8]);
  }

  private held(): OrbitControls {
    const controls = new OrbitControls(this.camera, this.canvas);
    controls.enableDamping = false;
    controls.zoomToCursor = true;
    controls.addEventListener("start", () => (this.steering = true));
    controls.addEventListener("change", () => this.move());
    controls.addEventListener("end", () => {
      this.steering = false;
      this.rest();
    });
    return controls;
  }

  dispose() {
    cancelAnimationFrame(this.wanted);
    clearTimeout(this.resting);
    this.controls.dispose();
    this.mesh.geometry.dispose();
    this.edges.dispose();
    this.ghosts?.geometry.dispose();
    this.renderer.dispose();
  }

  /** Be called now and for every frame, until the answer is called: for what is laid over the building. */
  watch(watcher: () => void): () => void {
    this.watchers.add(watcher);
    watcher();
    return () => void this.watchers.delete(watcher);
  }

  /** Draw with the next frame, however often it is asked for. */
  draw() {
    cancelAnimationFrame(this.wanted);
    this.wanted = requestAnimationFrame((now) => {
      if (this.moving) this.judge(now);
      const count = this.mesh.geometry.index?.count ?? 0;
      const some = this.moving && this.budget < count / 3;
      this.mesh.geometry.setDrawRange(0, some ? Math.round(this.budget) * 3 : Infinity);
      this.edges.lines.visible = !some;
      this.edges.prepare(this.renderer, this.camera, this.pixel(), this.camera === this.deep, !this.moving);
      this.renderer.render(this.scene, this.camera);
      for (const watcher of this.watchers) watcher();
    });
  }

  /**
   * Draw while one turns, nears or moves it: only as much as keeps up with the pointer, and the rest when it
   * rests.
   */
  private move() {
    if (!this.moving) this.last = 0;
    this.moving = true;
    if (!this.steering) this.rest();
    this.draw();
  }

  /** All of it, once nothing has moved for a moment. */
  private rest() {
    clearTimeout(this.resting);
    this.resting = window.setTimeout(() => {
      this.moving = false;
      this.draw();
    }, REST);
  }

  /** Draw less of it next time where the last frame was long in coming, more where it came at once. */
  private judge(now: number) {
    const all = (this.mesh.geometry.index?.count ?? 0) / 3;
    const frame = now - this.last;
    if (this.last && frame > SLOW) this.budget = Math.max(MIN_SHOWN, Math.min(this.budget, all) / 2);
    else if (this.last && frame < QUICK && this.budget < all) this.budget *= 1.05;
    this.last = now;
  }

  resize(width: number, height: number) {
    this.renderer.setSize(width, height, false);
    this.deep.aspect = width / Math.max(height, 1);
    const half = (this.flat.top - this.flat.bottom) / 2 || this.radius;
    this.flat.left = -half * this.deep.aspect;
    this.flat.right = half * this.deep.aspect;
    this.deep.updateProjectionMatrix();
    this.flat.updateProjectionMatrix();
    this.draw();
  }

  /** Look from a direction, with all of the building in sight. */
  look(way: Way) {
    const from = new Vector3(...way).normalize();
    // Straight from above, up on the screen is north.
    if (Math.abs(from.z) > 0.999) from.y -= 0.001;
    const half = halfHeight(this.box, this.middle, this.deep.aspect, from) * 1.06;
    // Far enough for what is nearest to the eye, too, to be in sight.
    const distance = half / Math.tan((ANGLE * Math.PI) / 360) + this.radius * 0.6;
    this.controls.target.copy(this.middle);
    for (const camera of [this.flat, this.deep]) {
      camera.position.copy(this.middle).addScaledVector(from, distance);
      camera.near = this.radius / 500;
      camera.far = distance + this.radius * 20;
      camera.zoom = 1;
    }
    [this.flat.top, this.flat.bottom] = [half, -half];
    [this.flat.left, this.flat.right] = [-half * this.deep.aspect, half * this.deep.aspect];
    this.flat.near = -this.radius * 20;
    this.deep.updateProjectionMatrix();
    this.flat.updateProjectionMatrix();
    this.controls.update();
    this.draw();
  }

  fit() {
    const way = this.camera.position.clone().sub(this.controls.target);
    this.look([way.x, way.y, way.z]);
  }

  /** Walk round the building, and rise above it; degrees. */
  turn(across: number, up: number) {
    const away = this.camera.position.clone().sub(this.controls.target);
    const altitude = Math.atan2(away.z, Math.hypot(away.x, away.y));
    const risen = Math.min(STEEPEST, Math.max(-STEEPEST, altitude + (up * Math.PI) / 180));
    away.applyAxisAngle(new Vector3(away.y, -away.x, 0).normalize(), risen - altitude);
    away.applyAxisAngle(new Vector3(0, 0, 1), (across * Math.PI) / 180);
    this.camera.position.copy(this.controls.target).add(away);
    this.controls.update();
    this.draw();
  }

  /** Come nearer by a factor; below one, go further away. */
  nearer(factor: number) {
    if (this.camera === this.flat) {
      this.flat.zoom *= factor;
      this.flat.updateProjectionMatrix();
    } else this.camera.position.sub(this.controls.target).divideScalar(factor).add(this.controls.target);
    this.controls.update();
    this.draw();
  }

  /**
   * Lay some elements of another version over the building, as one can see through them; none takes them
   * away.
   */
  ghost(other: Solid | undefined, ids: ReadonlySet<string>, colour: string) {
    if (this.ghosts) {
      this.scene.remove(this.ghosts);
      this.ghosts.geometry.dispose();
      this.ghosts.material.dispose();
      this.ghosts = null;
    }
    const gone = other?.elements.filter((e) => ids.has(e.id)) ?? [];
    if (other && gone.length) {
      const body = new BufferGeometry();
      body.setAttribute("position", new BufferAttribute(other.places, 3));
      body.setIndex(
        new BufferAttribute(
          joined(gone.map((e) => other.triangles.subarray(e.triangles[0] * 3, e.triangles[1] * 3))),
          1,
        ),
      );
      this.ghosts = new Mesh(
        body,
        new MeshLambertMaterial({
          color: colour,
          flatShading: true,
          transparent: true,
          opacity: 0.55,
          depthWrite: false,
        }),
      );
      const [x, y, z] = other.origin.map((figure, k) => figure - (this.solid.origin[k] ?? 0));
      this.ghosts.position.set(x ?? 0, y ?? 0, z ?? 0);
      this.scene.add(this.ghosts);
    }
    this.draw();
  }

  setPerspective(on: boolean) {
    const target = this.controls.target.clone();
    const next = on ? this.deep : this.flat;
    if (next === this.camera) return;
    next.position.copy(this.camera.position);
    this.camera = next;
    this.controls.dispose();
    this.controls = this.held();
    this.controls.target.copy(target);
    this.controls.update();
    this.draw();
  }

  /** Show some elements; the others are not there to be picked either. */
  show(which: (element: number) => boolean) {
    const { elements, triangles, edges } = this.solid;
    const pickedTriangles: Uint32Array[] = [];
    const pickedEdges: Uint32Array[] = [];
    this.shownFrom = [];
    this.shownElements = [];
    let count = 0;
    // The largest first: while it is turned on a slow machine, only so many of them are drawn.
    for (const k of this.bySize) {
      const e = elements[k];
      if (!e || !which(k)) continue;
      this.shownFrom.push(count);
      this.shownElements.push(k);
      count += e.triangles[1] - e.triangles[0];
      pickedTriangles.push(triangles.subarray(e.triangles[0] * 3, e.triangles[1] * 3));
      pickedEdges.push(edges.subarray(e.edges[0] * 2, e.edges[1] * 2));
    }
    this.mesh.geometry.setIndex(new BufferAttribute(joined(pickedTriangles), 1));
    this.edges.lines.geometry.setIndex(new BufferAttribute(joined(pickedEdges), 1));
    this.draw();
  }

  /** Give elements colours; null for the usual one. */
  colour(of: (element: number) => string | null) {
    const paint = this.paint.array;
    const one = new Color();
    this.solid.elements.forEach((e, k) => {
      one.set(of(k) ?? "#e9e3d6");
      const [r, g, b] = [one.r * 255, one.g * 255, one.b * 255];
      for (let p = e.points[0]; p < e.points[1]; p++) {
        paint[p * 3] = r;
        paint[p * 3 + 1] = g;
        paint[p * 3 + 2] = b;
      }
    });
    this.paint.needsUpdate = true;
    this.draw();
  }

  /** Millimetres to a pixel of what is drawn; in the perspective at 1 mm from the eye. */
  private pixel(): number {
    const { height } = this.size();
    const across =
      this.camera === this.flat
        ? (this.flat.top - this.flat.bottom) / this.flat.zoom
        : 2 * Math.tan((ANGLE * Math.PI) / 360);
    return across / Math.max(height * this.renderer.getPixelRatio(), 1);
  }

  private size() {
    return { width: this.canvas.clientWidth, height: this.canvas.clientHeight };
  }

  /**
   * The element at a point of the canvas, the place on it, and the bearing of its face; null beside the
   * building.
   */
  pick(x: number, y: number): Picked | null {
    const straight = this.pickAt(x, y);
    if (straight) return straight;
    // Just beside something is meant for it: the nearest ring of points that meets anything.
    for (const reach of REACHES)
      for (let k = 0; k < 8; k++) {
        const angle = (k * Math.PI) / 4;
        const hit = this.pickAt(x + reach * Math.cos(angle), y + reach * Math.sin(angle));
        if (hit) return hit;
      }
    return null;
  }

  private pickAt(x: number, y: number): Picked | null {
    const { width, height } = this.size();
    const ray = new Raycaster();
    ray.setFromCamera(new Vector2((x / width) * 2 - 1, 1 - (y / height) * 2), this.camera);
    const [hit] = ray.intersectObject(this.mesh, false);
    if (!hit || hit.faceIndex == null) return null;
    let low = 0;
    let high = this.shownFrom.length - 1;
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if ((this.shownFrom[middle] ?? 0) <= hit.faceIndex) low = middle;
      else high = middle - 1;
    }
    const element = this.shownElements[low];
    if (element === undefined) return null;
    return { element, place: [hit.point.x, hit.point.y, hit.point.z], bearing: bearingOf(hit.face?.normal) };
  }

  /** The place that is measured from at a point of the canvas; null beside the building. */
  snap(x: number, y: number): Place | null {
    const hit = this.pick(x, y);
    const apart = (place: Place) => {
      const [sx, sy] = this.onScreen(place);
      return Math.hypot(sx - x, sy - y);
    };
    return hit && measuredFrom(this.solid, hit.element, hit.place, apart);
  }

  /** Where a place of the building is on the canvas, pixels. */
  onScreen(place: Place): readonly [number, number] {
    const { width, height } = this.size();
    const at = new Vector3(...place).project(this.camera);
    return [((at.x + 1) / 2) * width, ((1 - at.y) / 2) * height];
  }

  /** How it is looked at just now, in the figures of a view. */
  sight(): Sight {
    const { position } = this.camera;
    const { target } = this.controls;
    if (this.camera === this.flat) return axonometricSight(position.clone().sub(target));
    return perspectiveSight(position, target, this.solid.origin, this.deep.aspect);
  }
}
