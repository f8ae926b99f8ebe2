/** Manifests and lock files in, the versions of products out. */
export { compareVersions, ProductVersions, shortVersion, type ProductVersion } from "./versions.js";
