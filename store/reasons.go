package store

import (
	"errors"

	"modernc.org/sqlite"
	sqlite3 "modernc.org/sqlite/lib"
)

// reasons are SQLite's plain result codes that a user can do something about.
var reasons = map[int]string{
	sqlite3.SQLITE_FULL:     "The disk is full, so this was not kept. Make some room on it; what was kept before is as it was.",
	sqlite3.SQLITE_IOERR:    "The disk does not take this, so it was not kept. Look whether it is full, or unplugged.",
	sqlite3.SQLITE_READONLY: "The data may be read but not written, so this was not kept. Look at the rights of the data folder.",
	sqlite3.SQLITE_CANTOPEN: "The data cannot be opened for writing, so this was not kept. Look at the rights of the data folder.",
	sqlite3.SQLITE_BUSY:     "Another program holds the data, so this was not kept. Close it, and try again.",
	sqlite3.SQLITE_CORRUPT:  "The data file is damaged. Stop here and bring back a copy on the page “Your data”; nothing more is written to it.",
	sqlite3.SQLITE_NOTADB:   "The data file is not one of Brevium's any more. Bring back a copy on the page “Your data”.",
}

// damaged reports whether an error tells of a damaged file.
func damaged(err error) bool {
	var e *sqlite.Error
	if !errors.As(err, &e) {
		return false
	}
	code := e.Code() & 0xff
	return code == sqlite3.SQLITE_CORRUPT || code == sqlite3.SQLITE_NOTADB
}

// Reason says in a sentence why the disk or the file refused; "" for any
// other error.
func Reason(err error) string {
	var e *sqlite.Error
	if !errors.As(err, &e) {
		return ""
	}
	return reasons[e.Code()&0xff]
}
