package desk

const NoBox Absent = "box"
