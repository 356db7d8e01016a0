package desk

const NoPerson Absent = "person"
