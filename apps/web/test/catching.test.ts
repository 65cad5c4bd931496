import { catchAt } from "../src/desk/catching"

const sheet = { start: 0, length: 600, middles: true }
const other = { start: 100, length: 80, middles: false }

test("what is dragged catches with its ends at ends and with its middle at middles, at the nearest line", () => {
  expect(catchAt({ start: 4, length: 50 }, [sheet])).toEqual({ start: 0, line: 0 })
  expect(catchAt({ start: 546, length: 50 }, [sheet])).toEqual({ start: 550, line: 600 })
  expect(catchAt({ start: 272, length: 50 }, [sheet])).toEqual({ start: 275, line: 300 })
  expect(catchAt({ start: 47, length: 50 }, [sheet, other])).toEqual({ start: 50, line: 100 })
  expect(catchAt({ start: 183, length: 50 }, [other])).toEqual({ start: 180, line: 180 })
})

test("beyond a few pixels, and at the middles of other pictures, it goes where the pointer is", () => {
  expect(catchAt({ start: 20, length: 50 }, [sheet])).toBeNull()
  expect(catchAt({ start: 121, length: 40 }, [other])).toBeNull()
  expect(catchAt({ start: 20, length: 50 }, [])).toBeNull()
})
