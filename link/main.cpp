#include "rig_program.h"

int main(int argc, char** argv) { return vernal::run_rig_program(argc, argv); }
