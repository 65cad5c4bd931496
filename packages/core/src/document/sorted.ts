/** Index of the first element for which a condition holds that, once it holds, holds to the end; the length of the list if there is none. */
export function firstWhere<T>(list: ArrayLike<T>, holds: (element: T) => boolean): number {
  let low = 0
  let high = list.length
  while (low < high) {
    const middle = (low + high) >> 1
    if (holds(list[middle] as T)) high = middle
    else low = middle + 1
  }
  return low
}
