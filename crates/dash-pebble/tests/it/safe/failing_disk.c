// Stands between the program and the disk: as long as the file named by FAIL_FILE is there, writing or syncing a data file
// or its log fails as it says, "write 5" or "sync 28".
#define _GNU_SOURCE
#include <dlfcn.h>
#include <errno.h>
#include <limits.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <unistd.h>

static int fails(int fd, const char *what) {
    const char *control = getenv("FAIL_FILE");
    FILE *said = control ? fopen(control, "r") : NULL;
    char word[16], link[64], path[PATH_MAX] = "";
    int number = 0, read = said ? fscanf(said, "%15s %d", word, &number) : 0;
    if (said) fclose(said);
    if (read != 2 || strcmp(word, what)) return 0;
    snprintf(link, sizeof link, "/proc/self/fd/%d", fd);
    if (readlink(link, path, sizeof path - 1) < 0 || !strstr(path, ".sqlite") || strstr(path, "-shm")) return 0;
    errno = number;
    return 1;
}

#define REAL(name, type) ((type)dlsym(RTLD_NEXT, name))
ssize_t pwrite64(int fd, const void *from, size_t count, off64_t at) {
    if (fails(fd, "write")) return -1;
    return REAL("pwrite64", ssize_t (*)(int, const void *, size_t, off64_t))(fd, from, count, at);
}
ssize_t pwrite(int fd, const void *from, size_t count, off_t at) { return pwrite64(fd, from, count, at); }
int fsync(int fd) { return fails(fd, "sync") ? -1 : REAL("fsync", int (*)(int))(fd); }
int fdatasync(int fd) { return fails(fd, "sync") ? -1 : REAL("fdatasync", int (*)(int))(fd); }
