#include "program.h"

#include <iostream>

int main(int argc, char** argv)
{
    return vernal::run_cli({argv + 1, argv + argc}, {std::cout, std::cerr, {}, &std::cin});
}
