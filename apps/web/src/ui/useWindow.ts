import { useVirtualizer } from "@tanstack/react-virtual"
import { useCallback, useLayoutEffect, useState, type RefObject } from "react"
import { useWindowDimensions } from "react-native"
import { wideFrom } from "./wide"

/**
 * The rows of a long list that are in sight or near it.
 * @param heights of a row, in pixels: for fingers, and for a mouse
 */
export function useWindow(list: RefObject<HTMLElement | null>, count: number, [tall, low]: readonly [number, number]) {
  const row = useWindowDimensions().width >= wideFrom ? low : tall
  const [margin, setMargin] = useState(0)
  const scroller = useCallback(() => {
    let own = list.current?.parentElement ?? null
    while (own && !/auto|scroll/.test(getComputedStyle(own).overflowY)) own = own.parentElement
    return own
  }, [list])
  useLayoutEffect(() => {
    const [own, outer] = [list.current, scroller()]
    if (!own || !outer) return
    const measure = () =>
      setMargin(own.getBoundingClientRect().top - outer.getBoundingClientRect().top + outer.scrollTop)
    measure()
    // What stands above it may grow.
    const watching = new ResizeObserver(measure)
    if (outer.firstElementChild) watching.observe(outer.firstElementChild)
    return () => watching.disconnect()
  }, [list, scroller, count])
  const virtual = useVirtualizer({
    count,
    getScrollElement: scroller,
    estimateSize: () => row,
    overscan: 8,
    scrollMargin: margin,
  })
  useLayoutEffect(() => virtual.measure(), [virtual, row])
  return {
    items: virtual.getVirtualItems().map(({ index, start }) => ({ index, start: start - margin })),
    height: virtual.getTotalSize(),
  }
}
