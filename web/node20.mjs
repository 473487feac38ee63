// SvelteKit's build uses Promise.withResolvers, which Node has from version 22 on; this gives Node 20 the same.
Promise.withResolvers ??= function () {
  let resolve, reject;
  const promise = new Promise((yes, no) => ([resolve, reject] = [yes, no]));
  return { promise, resolve, reject };
};
