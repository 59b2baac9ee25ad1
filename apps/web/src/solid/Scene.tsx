import { Canvas, useThree } from "@react-three/fiber";
import type { Mesh } from "@true-spine/core/blade/mesh.ts";
import { useEffect, useMemo } from "react";
import { BufferAttribute, BufferGeometry, Color, DoubleSide, Vector3 } from "three";
import { OrbitControls } from "three/addons/controls/OrbitControls.js";
import { thicknessColour } from "./colours.ts";

const KEY_STEP = Math.PI / 36;

/** The meshed blade, turned by pointer, touch or the arrow keys. Drawn only when something changed. */
export function Scene({ mesh, thickest }: { mesh: Mesh; thickest: number }) {
  const geometry = useMemo(() => facets(mesh, thickest), [mesh, thickest]);
  useEffect(() => () => geometry.dispose(), [geometry]);
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
        <meshStandardMaterial vertexColors side={DoubleSide} roughness={0.55} metalness={0.1} />
      </mesh>
      <Turning reach={size} />
    </Canvas>
  );
}

function facets({ positions, triangles, thickness }: Mesh, thickest: number): BufferGeometry {
  const geometry = new BufferGeometry();
  const colours = new Float32Array(thickness.length * 3);
  thickness.forEach((t, i) => {
    const [r, g, b] = thicknessColour(t / thickest);
    new Color().setRGB(r, g, b, "srgb").toArray(colours, 3 * i);
  });
  geometry.setAttribute("position", new BufferAttribute(Float32Array.from(positions), 3));
  geometry.setAttribute("color", new BufferAttribute(colours, 3));
  geometry.setIndex(new BufferAttribute(triangles, 1));
  // Facets of their own, so that grind lines stay crisp.
  const flat = geometry.toNonIndexed();
  geometry.dispose();
  flat.computeVertexNormals();
  flat.center();
  flat.computeBoundingSphere();
  return flat;
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
