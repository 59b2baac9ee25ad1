import { compileField } from "@true-spine/core/blade/field.ts";
import { type Mesh, meshOf } from "@true-spine/core/blade/mesh.ts";
import type { Blade } from "@true-spine/core/blade/schema.ts";
import { expose, transfer } from "comlink";

/** Meshes a blade off the main thread, telling how far it has come. Stopped by ending the worker. */
const meshing = {
  mesh(blade: Blade, onProgress: (share: number) => void): Mesh {
    const made = meshOf(compileField(blade), { onProgress });
    return transfer(made, [made.positions.buffer, made.triangles.buffer, made.thickness.buffer]);
  },
};

export type Meshing = typeof meshing;

expose(meshing);
