/**
 * The edges of a building in 3D. An edge shows where its own element does: nothing shines through a roof or a
 * wall from just behind it. The edges of what is so thin that they would run together fade.
 */
import {
  BufferAttribute,
  BufferGeometry,
  Color,
  LineSegments,
  Mesh,
  NearestFilter,
  Scene,
  ShaderMaterial,
  Vector2,
  WebGLRenderTarget,
  type Camera,
  type WebGLRenderer,
} from "three";
import { sidesOf, type Solid } from "./solid";

/** Elements are told apart by three bytes; 0 is none. */
const BYTE = 256;
/** Edges of what is thinner on the screen are not drawn, and of what is thicker wholly; pixels. */
const [FADED, WHOLE] = [1.5, 6];

const OWNERS = {
  vertexShader: /* glsl */ `
    attribute vec3 owner;
    varying vec3 vOwner;
    void main() {
      vOwner = owner;
      gl_Position = projectionMatrix * modelViewMatrix * vec4(position, 1.0);
    }`,
  fragmentShader: /* glsl */ `
    varying vec3 vOwner;
    void main() { gl_FragColor = vec4(vOwner, 1.0); }`,
};

const LINES = {
  vertexShader: /* glsl */ `
    attribute vec3 owner;
    attribute float thickness;
    uniform float pixel;
    uniform float deep;
    varying vec3 vOwner;
    varying float vStrength;
    void main() {
      vOwner = owner;
      vec4 at = modelViewMatrix * vec4(position, 1.0);
      vStrength = smoothstep(float(${FADED}), float(${WHOLE}), thickness / (pixel * mix(1.0, -at.z, deep)));
      gl_Position = projectionMatrix * at;
    }`,
  fragmentShader: /* glsl */ `
    uniform vec3 colour;
    uniform sampler2D owners;
    uniform vec2 size;
    uniform float known;
    varying vec3 vOwner;
    varying float vStrength;
    void main() {
      float shown = 1.0 - known;
      for (int dx = -1; dx <= 1; dx++)
        for (int dy = -1; dy <= 1; dy++) {
          vec3 there = texture2D(owners, (gl_FragCoord.xy + vec2(dx, dy)) / size).rgb;
          if (all(lessThan(abs(there - vOwner), vec3(0.5 / 255.0)))) shown = 1.0;
        }
      if (shown < 0.5 || vStrength < 0.02) discard;
      gl_FragColor = vec4(colour, vStrength);
      #include <colorspace_fragment>
    }`,
};

export class EdgeLines {
  readonly lines: LineSegments<BufferGeometry, ShaderMaterial>;
  private readonly bodies: Mesh<BufferGeometry, ShaderMaterial>;
  private readonly scene = new Scene();
  private readonly target = new WebGLRenderTarget(1, 1, {
    minFilter: NearestFilter,
    magFilter: NearestFilter,
  });

  /** @param body the faces, whose index says which of them are shown. */
  constructor(solid: Solid, body: BufferGeometry) {
    const points = solid.places.length / 3;
    const owner = new Uint8Array(points * 3);
    const thickness = new Float32Array(points);
    solid.elements.forEach((element, k) => {
      // Of a bar its thickness, of a panel its width.
      const [, thin = 0] = sidesOf(solid, element).sort((a, b) => a - b);
      const [first, end] = element.points;
      for (let p = first; p < end; p++) {
        owner[p * 3] = (k + 1) % BYTE;
        owner[p * 3 + 1] = Math.floor((k + 1) / BYTE) % BYTE;
        owner[p * 3 + 2] = Math.floor((k + 1) / BYTE / BYTE);
        thickness[p] = thin;
      }
    });
    const owners = new BufferAttribute(owner, 3, true);
    body.setAttribute("owner", owners);
    const wire = new BufferGeometry();
    wire.setAttribute("position", new BufferAttribute(solid.places, 3));
    wire.setAttribute("owner", owners);
    wire.setAttribute("thickness", new BufferAttribute(thickness, 1));
    this.bodies = new Mesh(body, new ShaderMaterial(OWNERS));
    this.bodies.frustumCulled = false;
    this.scene.add(this.bodies);
    this.lines = new LineSegments(
      wire,
      new ShaderMaterial({
        ...LINES,
        transparent: true,
        depthWrite: false,
        uniforms: {
          colour: { value: new Color("#4d565d") },
          owners: { value: this.target.texture },
          size: { value: new Vector2(1, 1) },
          known: { value: 0 },
          pixel: { value: 1 },
          deep: { value: 0 },
        },
      }),
    );
  }

  /**
   * Make ready for a frame.
   *
   * @param pixel mm to a pixel; in a perspective at 1 mm from the eye.
   * @param exact whether it is looked which element is seen where; else near edges may shine through.
   */
  prepare(renderer: WebGLRenderer, camera: Camera, pixel: number, deep: boolean, exact: boolean) {
    const { uniforms } = this.lines.material;
    const set = (name: string, value: number) => {
      const uniform = uniforms[name];
      if (uniform) uniform.value = value;
    };
    set("pixel", pixel);
    set("deep", Number(deep));
    set("known", Number(exact));
    if (!exact) return;
    const size = uniforms.size?.value as Vector2;
    renderer.getDrawingBufferSize(size);
    if (this.target.width !== size.x || this.target.height !== size.y) this.target.setSize(size.x, size.y);
    const [colour, alpha] = [renderer.getClearColor(new Color()), renderer.getClearAlpha()];
    renderer.setRenderTarget(this.target);
    renderer.setClearColor(0x000000, 1);
    renderer.render(this.scene, camera);
    renderer.setRenderTarget(null);
    renderer.setClearColor(colour, alpha);
  }

  dispose() {
    this.lines.geometry.dispose();
    this.lines.material.dispose();
    this.bodies.material.dispose();
    this.target.dispose();
  }
}
