/** A function of an object that is worked out once for each: styles of a document are few, what hangs on them is much. */
export function onceEach<K extends object, V>(work: (of: K) => V): (of: K) => V {
  const known = new WeakMap<K, { value: V }>();
  return (of) => {
    let found = known.get(of);
    if (!found) known.set(of, (found = { value: work(of) }));
    return found.value;
  };
}
