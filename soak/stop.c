/* Loaded before the C library (LD_PRELOAD): ends the process, or fails, at a chosen call that changes files. */
#define _GNU_SOURCE
#include <dlfcn.h>
#include <errno.h>
#include <fcntl.h>
#include <signal.h>
#include <stdarg.h>
#include <stdio.h>
#include <sys/stat.h>
#include <unistd.h>

enum { BEFORE = 1, AFTER, HALF, ONCE, EVER };

static int left, how, code;

/* From now on count calls: at the `at`-th do this (see above); `error` is the errno of failures. 0 ends counting. */
void stop_at(int at, int what, int error) { left = at; how = what; code = error; }

static void end(void) { kill(getpid(), SIGKILL); for (;;) pause(); }

/* Whether this call fails; ends the process where that is wanted. */
static int fails(void) {
    if (!how) return 0;
    if (left > 0) left--;
    if (left) return 0;
    if (how == BEFORE) end();
    if (how == ONCE) { how = 0; errno = code; return 1; }
    if (how == EVER) { errno = code; return 1; }
    return 0;
}

static void done(void) { if (how && !left && (how == AFTER || how == HALF)) end(); }

/* `name` as the C library has it, in `real`. */
#define REAL(name, type, ...) \
    static type (*real)(__VA_ARGS__); \
    if (!real) real = dlsym(RTLD_NEXT, name)
/* The call itself, between the two places where the process can end. */
#define CALLED(type, call) \
    if (fails()) return -1; \
    else { \
        type got = call; \
        done(); \
        return got; \
    }

static int changes(int flags) { return flags & (O_CREAT | O_TRUNC | O_WRONLY | O_RDWR); }

#define MODE \
    va_list more; \
    va_start(more, flags); \
    mode_t mode = va_arg(more, mode_t); \
    va_end(more)
#define OPEN(name) \
    int name(const char *path, int flags, ...) { \
        MODE; \
        REAL(#name, int, const char *, int, ...); \
        if (!changes(flags)) return real(path, flags, mode); \
        CALLED(int, real(path, flags, mode)) \
    }
#define OPENAT(name) \
    int name(int folder, const char *path, int flags, ...) { \
        MODE; \
        REAL(#name, int, int, const char *, int, ...); \
        if (!changes(flags)) return real(folder, path, flags, mode); \
        CALLED(int, real(folder, path, flags, mode)) \
    }
OPEN(open)
OPEN(open64)
OPENAT(openat)
OPENAT(openat64)

ssize_t write(int fd, const void *data, size_t size) {
    REAL("write", ssize_t, int, const void *, size_t);
    /* What goes to a terminal or a pipe is no file. */
    struct stat about;
    if (fd <= 2 || fstat(fd, &about) || !S_ISREG(about.st_mode)) return real(fd, data, size);
    CALLED(ssize_t, real(fd, data, how == HALF && !left ? size / 2 : size))
}

int fsync(int fd) {
    REAL("fsync", int, int);
    CALLED(int, real(fd))
}

int rename(const char *from, const char *to) {
    REAL("rename", int, const char *, const char *);
    CALLED(int, real(from, to))
}

int renameat(int here, const char *from, int there, const char *to) {
    REAL("renameat", int, int, const char *, int, const char *);
    CALLED(int, real(here, from, there, to))
}

int unlink(const char *path) {
    REAL("unlink", int, const char *);
    CALLED(int, real(path))
}

int mkdir(const char *path, mode_t mode) {
    REAL("mkdir", int, const char *, mode_t);
    CALLED(int, real(path, mode))
}
