declare module "virtual:contents" {
  const contents: import("./contents").Contents;
  export default contents;
}
