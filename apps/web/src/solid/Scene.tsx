import { Canvas, useThree } from "@react-three/fiber";
import type { Mesh } from "@true-spine/core/blade/mesh.ts";
import { useEffect, useMemo } from "react";
import {
  BufferAttribute,
  BufferGeometry,
  DataTexture,
  DoubleSide,
  LinearFilter,
  SRGBColorSpace,
  Vector3,
} from "three";
import { OrbitControls } from "three/addons/controls/OrbitControls.js";
import { thicknessColour } from "./colours.ts";

const KEY_STEP = Math.PI / 36;

/** The meshed blade, turned by pointer, touch or the arrow keys. Drawn only when something changed. */
export function Scene({ mesh, thickest }: { mesh: Mesh; thickest: number }) {
  const geometry = useMemo(() => facets(mesh, thickest), [mesh, thickest]);
  useEffect(() => () => geometry.dispose(), [geometry]);
  const colours = useMemo(colourScale, []);
  useEffect(() => () => colours.dispose(), [colours]);
  const size = geometry.boundingSphere?.radius ?? 100;
  return (
    <Canvas
      frameloop="demand"
      camera={{ fov: 30, near: 1, far: size * 20, position: [size * 0.4, size * 0.6, size * 2.5] }}
      dpr={[1, 2]}
      gl={{ antialias: true, preserveDrawingBuffer: true }}
    >
      <color attach="background" args={["#0f2f57"]} />
      <hemisphereLight args={["#ffffff", "#8aa0bb", 1.6]} />
      <directionalLight position={[size, size * 2, size * 3]} intensity={2.2} />
      <directionalLight position={[-size, -size, -size * 2]} intensity={0.8} />
      <mesh geometry={geometry}>
        <meshStandardMaterial map={colours} side={DoubleSide} roughness={0.55} metalness={0.1} />
      </mesh>
      <Turning reach={size} />
    </Canvas>
  );
}

function facets({ positions, triangles, thickness }: Mesh, thickest: number): BufferGeometry {
  const geometry = new BufferGeometry();
  // The place on the scale, not its colour: a facet from edge to spine runs through all that lies between.
  const places = new Float32Array(thickness.length * 2);
  thickness.forEach((t, i) => {
    places[2 * i] = t / thickest;
    places[2 * i + 1] = 0.5;
  });
  geometry.setAttribute("position", new BufferAttribute(Float32Array.from(positions), 3));
  geometry.setAttribute("uv", new BufferAttribute(places, 2));
  geometry.setIndex(new BufferAttribute(triangles, 1));
  // Facets of their own, so that grind lines stay crisp.
  const flat = geometry.toNonIndexed();
  geometry.dispose();
  flat.computeVertexNormals();
  flat.center();
  flat.computeBoundingSphere();
  return flat;
}

const SHADES = 256;

/** The scale of thicknesses as a strip of colours, thin at its left. */
function colourScale(): DataTexture {
  const strip = new Uint8Array(SHADES * 4);
  for (let i = 0; i < SHADES; i++) {
    const [r, g, b] = thicknessColour(i / (SHADES - 1));
    strip.set([r * 255, g * 255, b * 255, 255], 4 * i);
  }
  const texture = new DataTexture(strip, SHADES, 1);
  texture.colorSpace = SRGBColorSpace;
  texture.magFilter = LinearFilter;
  texture.minFilter = LinearFilter;
  texture.needsUpdate = true;
  return texture;
}

function Turning({ reach }: { reach: number }) {
  const { camera, gl, invalidate } = useThree();
  useEffect(() => {
    const controls = new OrbitControls(camera, gl.domElement);
    controls.enablePan = false;
    controls.minDistance = reach * 0.6;
    controls.maxDistance = reach * 8;
    controls.addEventListener("change", () => invalidate());
    controls.update();
    const element = gl.domElement;
    element.tabIndex = 0;
    element.setAttribute("role", "application");
    element.setAttribute(
      "aria-label",
      "Blade in three dimensions. Arrow keys turn it, plus and minus come nearer.",
    );
    const onKey = (event: KeyboardEvent) => {
      const turn = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key];
      if (turn) {
        const offset = camera.position.clone();
        offset.applyAxisAngle(new Vector3(0, 1, 0), turn[0]! * KEY_STEP);
        const aside = new Vector3().crossVectors(offset, camera.up).normalize();
        const tipped = offset.clone().applyAxisAngle(aside, turn[1]! * KEY_STEP);
        camera.position.copy(Math.abs(tipped.clone().normalize().y) < 0.98 ? tipped : offset);
      } else if (event.key === "+" || event.key === "=") camera.position.multiplyScalar(0.9);
      else if (event.key === "-") camera.position.multiplyScalar(1.1);
      else return;
      event.preventDefault();
      event.stopPropagation();
      controls.update();
      invalidate();
    };
    element.addEventListener("keydown", onKey);
    return () => {
      element.removeEventListener("keydown", onKey);
      controls.dispose();
    };
  }, [camera, gl, invalidate, reach]);
  return null;
}
